import type { Failure } from '@/services/failure';
import type { Format } from '../format';
import { failureSentence } from '../sentences';
import { Notice } from './states';

/** The no-right state of a view. */
export const Refused = ({ failure, format }: { failure: Failure; format: Format }) => (
  <Notice title="This is not for your account">{failureSentence(failure, format)}</Notice>
);
