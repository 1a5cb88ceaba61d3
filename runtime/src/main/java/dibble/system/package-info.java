/** Services of a running application: named background threads, and values that are computed there. */
package dibble.system;
