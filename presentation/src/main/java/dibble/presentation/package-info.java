/**
 * What the window decides and shows without a toolkit, and what all of that shares: selection, live state, findings,
 * long work, words. May import runtime, sound, jack and paper.
 */
package dibble.presentation;
