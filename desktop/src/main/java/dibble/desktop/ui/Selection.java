package dibble.desktop.ui;

import java.util.LinkedHashSet;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableSet;
import javafx.collections.SetChangeListener;
import javafx.util.Subscription;

/** What is selected, by id; null for nothing. Apart from arming and hearing. */
public final class Selection {
    private final StringProperty source = new SimpleStringProperty();
    private final StringProperty zone = new SimpleStringProperty();
    private final StringProperty part = new SimpleStringProperty();
    private final ObservableSet<String> parts = FXCollections.observableSet(new LinkedHashSet<>());
    private final StringProperty control = new SimpleStringProperty();
    private final StringProperty scene = new SimpleStringProperty();
    private final StringProperty instrument = new SimpleStringProperty();
    private final ObservableSet<String> zones = FXCollections.observableSet(new LinkedHashSet<>());
    private final ObjectProperty<Places.Thing> lit = new SimpleObjectProperty<>();

    /** Nothing is selected. */
    public Selection() {
        // One that is chosen by itself is the only one; those that are added come with it.
        zone.subscribe(id -> {
            if (id == null) {
                zones.clear();
            } else if (!zones.contains(id)) {
                zones.clear();
                zones.add(id);
            }
        });
    }

    /** Has the listener run when anything else is selected; what is lit is no selection. */
    public Subscription listen(Runnable listener) {
        SetChangeListener<String> of = change -> listener.run();
        parts.addListener(of);
        zones.addListener(of);
        return Subscription.combine(
                () -> parts.removeListener(of),
                () -> zones.removeListener(of),
                source.subscribe(id -> listener.run()),
                zone.subscribe(id -> listener.run()),
                part.subscribe(id -> listener.run()),
                instrument.subscribe(id -> listener.run()),
                control.subscribe(id -> listener.run()),
                scene.subscribe(id -> listener.run()));
    }

    /** What the pointer is over, or null: whatever belongs to it is lit in all that can be seen. */
    public ObjectProperty<Places.Thing> lit() {
        return lit;
    }

    /** The source whose keyboard is on the live line. */
    public StringProperty source() {
        return source;
    }

    /** A zone. */
    public StringProperty zone() {
        return zone;
    }

    /** A part, as {@code instrument/part}. */
    public StringProperty part() {
        return part;
    }

    /** Parts that are selected together, as {@code instrument/part}; {@link #part} is the last of them. */
    public ObservableSet<String> parts() {
        return parts;
    }

    /** An instrument, where it is looked at rather than one of its parts. */
    public StringProperty instrument() {
        return instrument;
    }

    /** A control map. */
    public StringProperty control() {
        return control;
    }

    /** A scene that is looked at; the one that holds is in the performance. */
    public StringProperty scene() {
        return scene;
    }

    /** Zones that are selected together; {@link #zone} is the last of them. */
    public ObservableSet<String> zones() {
        return zones;
    }

    /** Looks at a source, rather than at a part or an instrument. */
    public void sourceAlone(String id) {
        part.set(null);
        parts.clear();
        instrument.set(null);
        source.set(id);
    }

    /** Looks at a part alone. */
    public void partAlone(String id) {
        instrument.set(null);
        parts.clear();
        parts.add(id);
        part.set(id);
    }

    /** Looks at an instrument as a whole. */
    public void instrumentAlone(String id) {
        part.set(null);
        parts.clear();
        instrument.set(id);
    }

    /** Selects nothing, and for a beginning a source, or null. */
    public void reset(String first) {
        zone.set(null);
        control.set(null);
        scene.set(null);
        lit.set(null);
        sourceAlone(first);
    }

    /** Selects one zone alone. */
    public void zoneAlone(String id) {
        zones.clear();
        if (id != null) {
            zones.add(id);
        }
        zone.set(id);
    }

    /** Selects a zone beside those that are selected, or no longer. */
    public void zoneAlso(String id) {
        also(zones, zone, id);
    }

    /** Selects a part beside those that are selected, or no longer. */
    public void partAlso(String id) {
        also(parts, part, id);
    }

    /** Turns one of several on or off; the last of them leads. */
    private static void also(ObservableSet<String> several, StringProperty last, String id) {
        if (!several.remove(id)) {
            several.add(id);
            last.set(id);
        } else if (id.equals(last.get())) {
            last.set(several.stream().findFirst().orElse(null));
        }
    }
}
