/** Project files: everything of a project in one zip. */
package app.zolvan.core.exchange.project;
