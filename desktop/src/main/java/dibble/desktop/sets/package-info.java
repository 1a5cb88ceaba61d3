/** Several sessions in the order of an evening. */
package dibble.desktop.sets;
