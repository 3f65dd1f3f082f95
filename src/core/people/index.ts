export { type AlertHow, type AlertMatter, type AlertRule, alertMatters, isMailAddress } from './alerts';
export { checkName, checkPassword, checkPerson, initialsOf, type PersonFault } from './newPerson';
export { responsibleBuyer } from './responsibleBuyer';
export {
  type Actor,
  type Forbidden,
  isRight,
  isRole,
  may,
  type Right,
  type Role,
  rights,
  rightsOf,
  rightsOfActor,
  roles,
} from './rights';
