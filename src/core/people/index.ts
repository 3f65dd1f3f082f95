export { type Actor, type Forbidden, may, type Right, type Role } from './rights';
