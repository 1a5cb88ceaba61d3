/**
 * Session files on disk: the container of a session, files that are replaced in one step, and pipes as input. May import
 * files.
 */
package dibble.disk;
