/**
 * Sources, instruments and parts as immutable values, and the plan of channels. May import midi only.
 */
package dibble.gear;
