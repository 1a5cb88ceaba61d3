package dibble.recording;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Clips cut and brought together, so that no note hangs where they were cut. Functions of clips. */
public final class Clips {
    private Clips() {}

    /** An event with its place, while clips are brought together. */
    private record Event(long tick, MidiTrack track, int at, int message) {}

    /**
     * What a clip has outside a stretch: notes that sound into it end at its beginning, pedals and wheels come to rest
     * there; behind it they are again what they were, and only notes that begin there sound.
     *
     * @param from a tick
     * @param to a later tick, or {@link Long#MAX_VALUE}
     */
    public static MidiTrack without(MidiTrack clip, long from, long to) {
        List<Event> events = new ArrayList<>();
        Map<Integer, Integer> sounding = new LinkedHashMap<>();
        boolean cut = false;
        boolean back = false;
        for (int i = 0; i < clip.size(); i++) {
            long tick = clip.tick(i);
            if (!cut && tick >= from) {
                cut = true;
                cut(clip, from, sounding, events);
            }
            if (cut && !back && tick >= to) {
                back = true;
                Chase.before(clip, to).messages().forEach(message -> events.add(new Event(to, null, 0, message)));
            }
            boolean inside = tick >= from && tick < to;
            if (!clip.isChannelMessage(i)) {
                // A device's name counts for all that follows.
                events.add(new Event(inside ? Math.min(to, tick) : tick, clip, i, 0));
                continue;
            }
            int message = clip.message(i);
            int note = ShortMessage.channel(message) << 7 | ShortMessage.data1(message);
            if (ShortMessage.startsNote(message) && !inside) {
                sounding.put(note, i);
            }
            boolean ends = ShortMessage.endsNote(message);
            boolean orphan = ends && !inside && sounding.remove(note) == null && cut;
            if (!inside && !orphan) {
                events.add(new Event(tick, clip, i, message));
            }
        }
        if (!cut) {
            cut(clip, from, sounding, events);
        }
        if (!back && to < Long.MAX_VALUE) {
            Chase.before(clip, to).messages().forEach(message -> events.add(new Event(to, null, 0, message)));
        }
        return build(events, to == Long.MAX_VALUE ? Math.min(from, clip.endTick()) : clip.endTick());
    }

    private static void cut(MidiTrack clip, long from, Map<Integer, Integer> sounding, List<Event> events) {
        sounding.keySet()
                .forEach(note -> events.add(new Event(
                        from, null, 0, ShortMessage.noteOff(note >>> 7, note & 0x7F, ShortMessage.DEFAULT_RELEASE))));
        sounding.clear();
        for (int message : Chase.before(clip, from).messages()) {
            int rest = Chase.atRest(message);
            if (rest != message) {
                events.add(new Event(from, null, 0, rest));
            }
        }
    }

    /** Two clips over each other; at equal ticks the first one comes first. */
    public static MidiTrack over(MidiTrack first, MidiTrack second) {
        List<Event> events = new ArrayList<>();
        for (MidiTrack track : List.of(first, second)) {
            for (int i = 0; i < track.size(); i++) {
                events.add(new Event(track.tick(i), track, i, track.isChannelMessage(i) ? track.message(i) : 0));
            }
        }
        if (second.size() > 0 && (hasDevices(first) || hasDevices(second))) {
            return build(withDevices(events), Math.max(first.endTick(), second.endTick()));
        }
        events.sort(ORDER);
        return build(events, Math.max(first.endTick(), second.endTick()));
    }

    /** Sorting is stable: what is at one tick keeps its order. */
    private static final Comparator<Event> ORDER = Comparator.comparingLong(Event::tick);

    private static boolean hasDevices(MidiTrack track) {
        for (int i = 0; i < track.size(); i++) {
            if (track.isMeta(i, MidiTrack.META_DEVICE)) {
                return true;
            }
        }
        return false;
    }

    /** Merges what is for several devices: the name is said again wherever the other clip's event comes between. */
    private static List<Event> withDevices(List<Event> events) {
        Map<Event, Event> deviceOf = new java.util.IdentityHashMap<>();
        Map<MidiTrack, Event> now = new java.util.IdentityHashMap<>();
        List<Event> bare = new ArrayList<>();
        for (Event event : events) {
            if (event.track().isMeta(event.at(), MidiTrack.META_DEVICE)) {
                now.put(event.track(), event);
            } else {
                bare.add(event);
                Optional.ofNullable(now.get(event.track())).ifPresent(device -> deviceOf.put(event, device));
            }
        }
        bare.sort(ORDER);
        List<Event> merged = new ArrayList<>();
        String said = null;
        for (Event event : bare) {
            Event device = deviceOf.get(event);
            String name = device == null ? null : device.track().text(device.at());
            if (name != null && !name.equals(said)) {
                merged.add(new Event(event.tick(), device.track(), device.at(), 0));
                said = name;
            }
            merged.add(event);
        }
        return merged;
    }

    private static MidiTrack build(List<Event> events, long end) {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        for (Event event : events) {
            if (event.track() == null || event.message() != 0) {
                clip.add(event.tick(), event.message());
            } else {
                clip.copyAt(event.tick(), event.track(), event.at());
            }
        }
        return clip.build(end);
    }

    /**
     * A track's clip, taken apart by the instruments that it is for, by their ids; under an empty id what no device's
     * name comes before.
     */
    public static Map<String, MidiTrack> byDevice(MidiTrack clip) {
        Map<String, MidiTrack.Builder> parts = new LinkedHashMap<>();
        String device = "";
        for (int i = 0; i < clip.size(); i++) {
            if (clip.isMeta(i, MidiTrack.META_DEVICE)) {
                device = clip.text(i);
            } else {
                parts.computeIfAbsent(device, name -> new MidiTrack.Builder()).copy(clip, i);
            }
        }
        Map<String, MidiTrack> built = new LinkedHashMap<>();
        parts.forEach((name, part) -> built.put(name, part.build(clip.endTick())));
        return built;
    }

    /** The clip for one instrument: with its id before all events. */
    public static MidiTrack forDevice(String instrument, MidiTrack clip) {
        MidiTrack.Builder named = new MidiTrack.Builder();
        if (clip.size() > 0) {
            named.text(clip.tick(0), MidiTrack.META_DEVICE, instrument);
        }
        for (int i = 0; i < clip.size(); i++) {
            named.copy(clip, i);
        }
        return named.build(clip.endTick());
    }
}
