package dibble.desktop.ui;

import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;

/** What is selected, by id; null for nothing. Apart from arming and hearing. */
public final class Selection {
    private final StringProperty source = new SimpleStringProperty();
    private final StringProperty zone = new SimpleStringProperty();
    private final StringProperty part = new SimpleStringProperty();

    /** The source whose keyboard is on the live line. */
    public StringProperty source() {
        return source;
    }

    public StringProperty zone() {
        return zone;
    }

    /** A part, as {@code instrument/part}. */
    public StringProperty part() {
        return part;
    }
}
