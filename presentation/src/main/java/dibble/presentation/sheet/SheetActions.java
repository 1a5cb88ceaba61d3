package dibble.presentation.sheet;

import dibble.paper.PaperSize;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.function.Consumer;

/** The file actions of the Sheet view. */
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

    /**
     * A session as a sheet of rows would make it.
     *
     * @param base the session that the rows were applied to: the offer holds for that alone
     * @param again reads the rows again, for the session that is open then
     */
    record Offer(Other changed, Session base, Runnable again) {}

    /** Asks for a sheet of rows, and offers a preview of the resulting session. */
    void bringIn(Consumer<Offer> then);

    /** Asks for a session, and gives it. */
    void choose(Consumer<Other> then);

    /** Gives the session as it was saved; tells where it never was. */
    void saved(Consumer<Other> then);
}
