export { type Completeness, type Completion, completions, whatIsMissing } from './whatIsMissing';
