/** Controls: what knobs, pedals and sliders do. */
package dibble.desktop.controls;
