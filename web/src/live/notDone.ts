/** The program refused what it was asked to do, with its reason: nothing was changed. */
export class NotDone extends Error {}
