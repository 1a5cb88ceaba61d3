/**
 * The jobs that need no window: results to standard output or to a file, messages to standard error, exit codes 0 for
 * done, 1 for "no", 2 for bad arguments or bad input.
 */
package dibble.cli;
