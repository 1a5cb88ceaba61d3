/**
 * Fuzz targets for every reader of external input, and random damage for regression runs. Not part of the application.
 */
package dibble.fuzzing;
