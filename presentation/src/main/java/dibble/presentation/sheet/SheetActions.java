package dibble.presentation.sheet;

import dibble.paper.PaperSize;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.function.Consumer;

/** What the sheet's view does with files, which others ask for. */
public interface SheetActions {
    /** The forms of a sheet. */
    enum Form {
        PDF,
        HTML,
        CSV
    }

    /** A session beside the one on the desk. */
    record Other(String name, Session session, Performance performance) {}

    /** Asks where, and writes the sheet there. */
    void export(Form form, PaperSize paper);

    /** Asks for a sheet of rows, and gives what the session would be with it. */
    void bringIn(Consumer<Other> then);

    /** Asks for a session, and gives it. */
    void choose(Consumer<Other> then);

    /** Gives the session as it was saved; tells where it never was. */
    void saved(Consumer<Other> then);
}
