/**
 * So long whatever is bound to come is waited for, in milliseconds: long enough for two cores that are busy with other
 * work, since what does not come at all is rare.
 */
export const patience = 60_000;
