/** All tables; each room has a file of its own. */
export * from './cutsSchema';
export * from './ordersSchema';
export * from './peopleSchema';
export * from './shopSchema';
export * from './usageSchema';
