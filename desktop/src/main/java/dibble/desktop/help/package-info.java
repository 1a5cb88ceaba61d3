/** The view Help, whose pages ship as Markdown; and the strip of the first five minutes. */
package dibble.desktop.help;
