/** A file system for tests: every call can be reported, refused or delayed. */
package dibble.testing.disk;
