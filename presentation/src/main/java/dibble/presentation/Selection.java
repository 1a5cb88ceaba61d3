package dibble.presentation;

/** The selected objects, by id; null for none. Independent of arming and muting. */
public final class Selection {
    private final Observable<String> source = new Observable<>();
    private final Observable<String> zone = new Observable<>();
    private final Observable<String> part = new Observable<>();
    private final ObservableIds parts = new ObservableIds();
    private final Observable<String> control = new Observable<>();
    private final Observable<String> scene = new Observable<>();
    private final Observable<String> instrument = new Observable<>();
    private final ObservableIds zones = new ObservableIds();
    private final Observable<Navigator.Thing> lit = new Observable<>();

    /** Nothing is selected. */
    public Selection() {
        // A single selection replaces the previous one; added objects extend it.
        zone.listen(id -> {
            if (id == null) {
                zones.clear();
            } else if (!zones.contains(id)) {
                zones.clear();
                zones.add(id);
            }
        });
    }

    /** Runs a listener when the selection changes; the highlight is not part of it. */
    public Subscription listen(Runnable listener) {
        return Subscription.combine(
                parts.listen(listener),
                zones.listen(listener),
                source.listen(id -> listener.run()),
                zone.listen(id -> listener.run()),
                part.listen(id -> listener.run()),
                instrument.listen(id -> listener.run()),
                control.listen(id -> listener.run()),
                scene.listen(id -> listener.run()));
    }

    /** Returns the object under the pointer, or null; all visible related objects are highlighted. */
    public Observable<Navigator.Thing> lit() {
        return lit;
    }

    /** The source whose keyboard is on the live line. */
    public Observable<String> source() {
        return source;
    }

    /** A zone. */
    public Observable<String> zone() {
        return zone;
    }

    /** A part, as {@code instrument/part}. */
    public Observable<String> part() {
        return part;
    }

    /** Parts that are selected together, as {@code instrument/part}; {@link #part} is the last of them. */
    public ObservableIds parts() {
        return parts;
    }

    /** An instrument, where it is looked at rather than one of its parts. */
    public Observable<String> instrument() {
        return instrument;
    }

    /** A control map. */
    public Observable<String> control() {
        return control;
    }

    /** A scene that is looked at; the one that holds is in the performance. */
    public Observable<String> scene() {
        return scene;
    }

    /** Zones that are selected together; {@link #zone} is the last of them. */
    public ObservableIds zones() {
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
    private static void also(ObservableIds several, Observable<String> last, String id) {
        if (!several.remove(id)) {
            several.add(id);
            last.set(id);
        } else if (id.equals(last.get())) {
            last.set(several.first().orElse(null));
        }
    }
}
