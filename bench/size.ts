/** Whether it is only seen that a program runs: the tests start each with little of everything (SMALL=1), and no figure is worth anything. */
const IS_SMALL = process.env.SMALL === '1';

/** @param little what is enough to see that it runs */
export const ofSize = (usual: number, little: number): number => (IS_SMALL ? little : usual);
