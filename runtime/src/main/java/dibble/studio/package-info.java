/**
 * The living whole: opens ports and runs engine, recorder and player for a session. Imports everything below.
 */
package dibble.studio;
