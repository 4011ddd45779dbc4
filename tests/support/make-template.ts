/** Makes the database that end-to-end tests begin with, beside what comes before them, and says where it is. */
import makeTemplate, { TEMPLATE } from './till-template';

await makeTemplate();
console.log(process.env[TEMPLATE]);
