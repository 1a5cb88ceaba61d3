/**
 * Zones and scenes, their compiled table, and the router that executes it. May import midi and gear. A router is
 * confined to one thread at a time.
 */
package dibble.routing;
