import { seededFaults } from './seededFaults.testing';

seededFaults(0);
