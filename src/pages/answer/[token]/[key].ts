/** A link of somebody's own. */
export { answerRoute as GET } from '../../../server/answer-route';
