/**
 * Zones and scenes, the table they are compiled into, and the router that runs it. May import midi and gear. A router belongs to one thread at a time.
 */
package dibble.routing;
