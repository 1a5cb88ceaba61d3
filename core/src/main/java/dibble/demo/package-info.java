/**
 * The demo that ships with Dibble: its session and its composed performance.
 */
package dibble.demo;
