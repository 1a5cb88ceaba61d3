/**
 * The logic of the window without a toolkit, and its shared state: selection, live state, findings, jobs, wording. May
 * import runtime, sound, jack and paper.
 */
package dibble.presentation;
