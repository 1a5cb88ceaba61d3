/** Settings that the tests of every module share. Not part of the application. */
package dibble.testing;
