export { issue, type LevelValue, type Posting, receive } from './postToLevel';
