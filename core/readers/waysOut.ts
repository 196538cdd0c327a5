/** What films cannot show, a printer can. */
export const PRINT_IT = 'Print the drawing as it is: Drawing, under Artwork';
