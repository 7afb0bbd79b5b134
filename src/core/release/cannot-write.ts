/** Why a file cannot be made of some questionnaire, though nothing is wrong with what was asked. */

/** The message is a clause without a full stop, to be shown. */
export class CannotWrite extends Error {}
