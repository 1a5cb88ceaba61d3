/** Long work: how far it has come, and that it is not wanted any more. */
package dibble.work;
