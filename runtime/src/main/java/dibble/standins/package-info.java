/**
 * Simulated devices that take the place of real gear, behind the port interfaces.
 */
package dibble.standins;
