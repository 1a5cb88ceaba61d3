/**
 * Clocks, tempo and meter: between ticks, nanoseconds, bars and beats. Depends on nothing; immutable values.
 */
package dibble.time;
