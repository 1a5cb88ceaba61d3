/** The decisions of the view of keys, and its scale. */
package dibble.presentation.keys;
