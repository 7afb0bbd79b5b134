/** A link for everybody who is given it. */
export { answerRoute as GET } from '../../../server/answer-route';
