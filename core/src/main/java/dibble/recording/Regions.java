package dibble.recording;

import dibble.midi.MidiTrack;
import dibble.time.TempoRemap;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.LongUnaryOperator;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;

/**
 * The content of a track: ranges of prints, the later over the earlier ones, the resulting clip, and its manual edits.
 * The printed content depends on the regions only, so that printing an unchanged take again changes nothing. Immutable.
 */
public final class Regions {
    /** Nothing on a track. */
    public static final Regions NONE = new Regions(List.of());

    private final List<Region> all;

    /** Null where nothing was edited by hand. */
    private final ManualEdits hand;

    /** Made when they are first asked for; threads that both make them make the same. */
    private volatile MidiTrack printed;

    private volatile Set<Region> edited;
    private volatile ManualEdits untouched;

    /** The regions before the last remap; null if there was none. */
    private Regions unmapped;

    private TempoRemap remap;

    /** @param all the lowest first: who comes later lies above */
    public Regions(List<Region> all) {
        this(all, null);
    }

    private Regions(List<Region> all, ManualEdits hand) {
        this.all = List.copyOf(all);
        this.hand = hand;
    }

    /** Returns a clip that is of no take, with an off for each of its notes. */
    public static Regions own(MidiTrack clip) {
        return clip.size() == 0 ? NONE : new Regions(List.of(Region.own(Clips.closed(clip))));
    }

    /**
     * A clip of which is known what some stretches came from: events between them are of no take.
     *
     * @param stretches their prints are not looked at
     */
    public static Regions of(MidiTrack clip, List<Region> stretches) {
        List<Region> regions = new ArrayList<>();
        List<Region> inOrder = new ArrayList<>(stretches);
        inOrder.removeIf(Region::isGone);
        inOrder.sort(Comparator.comparingLong(Region::from));
        stretches.stream().filter(Region::isGone).forEach(regions::add);
        long end = Math.max(1, clip.endTick());
        long at = 0;
        for (Region stretch : inOrder) {
            long from = Math.max(at, stretch.from());
            if (hasEvents(clip, at, from)) {
                regions.add(new Region(null, at, from, PrintMode.REPLACE_ALL, false, clip));
            }
            if (stretch.to() > from) {
                regions.add(new Region(stretch.take(), from, stretch.to(), stretch.printed(), stretch.edited(), clip));
                at = stretch.to();
            }
        }
        if (at < end && hasEvents(clip, at, Long.MAX_VALUE)) {
            regions.add(new Region(null, at, end, PrintMode.REPLACE_ALL, false, clip));
        }
        return new Regions(regions);
    }

    private static boolean hasEvents(MidiTrack clip, long from, long to) {
        int next = 0;
        while (next < clip.size() && clip.tick(next) < from) {
            next++;
        }
        return next < clip.size() && clip.tick(next) < to;
    }

    /** The regions, the lowest first. */
    public List<Region> all() {
        return all;
    }

    /** Those of one take that sound. */
    public List<Region> of(String take) {
        return all.stream()
                .filter(region -> region.isOf(take) && !region.isGone())
                .toList();
    }

    /** Returns true if a take was printed onto the track, though others may have replaced all of it since. */
    public boolean knows(String take) {
        return all.stream().anyMatch(region -> region.isOf(take));
    }

    /** Returns true if there is none. */
    public boolean isEmpty() {
        return all.isEmpty();
    }

    /** The prints that they are stretches of, the lowest first. */
    public List<MidiTrack> prints() {
        return layers().stream().map(Layer::print).toList();
    }

    /** Returns the index in {@link #prints} of a region's print. */
    public int printNumber(Region region) {
        List<Layer> layers = layers();
        int number = 0;
        while (layers.get(number).print != region.print()) {
            number++;
        }
        return number;
    }

    /** A print with its regions. Prints are compared by identity, since two takes can have equal events. */
    private record Layer(MidiTrack print, List<Region> regions) {}

    private List<Layer> layers() {
        List<Layer> layers = new ArrayList<>();
        for (Region region : all.stream().filter(it -> !it.isGone()).toList()) {
            layers.stream()
                    .filter(layer -> layer.print == region.print())
                    .findFirst()
                    .orElseGet(() -> {
                        Layer layer = new Layer(region.print(), new ArrayList<>());
                        layers.add(layer);
                        return layer;
                    })
                    .regions
                    .add(region);
        }
        return layers;
    }

    /** Returns the events that sound: the prints as they were edited, without muted notes. */
    public MidiTrack sounding() {
        return hand == null ? printed() : hand.sounding();
    }

    /** Returns all events, muted notes among them. */
    public MidiTrack content() {
        return hand == null ? printed() : hand.whole();
    }

    /** Returns the printed content: each print in its ranges, over those below it. */
    public MidiTrack printed() {
        MidiTrack made = printed;
        if (made == null) {
            made = tracedPrints().clip();
            printed = made;
        }
        return made;
    }

    /** Returns the printed events; their originals are the {@link #prints}. */
    private Traced tracedPrints() {
        Traced made = Traced.of(Track.NOTHING, 0);
        List<Layer> layers = layers();
        for (int i = 0; i < layers.size(); i++) {
            Layer layer = layers.get(i);
            made = Clips.over(made, Clips.within(Traced.of(layer.print, i), stretches(layer.regions)));
        }
        return made;
    }

    /** Returns the manual edits; empty if there are none. */
    public Optional<ManualEdits> byHand() {
        return Optional.ofNullable(hand);
    }

    /** Returns the content for editing: the manual edits, or the print. */
    public ManualEdits editable() {
        if (hand != null) {
            return hand;
        }
        ManualEdits known = untouched;
        if (known == null) {
            known = ManualEdits.none(printed());
            untouched = known;
        }
        return known;
    }

    /** Drops derived values; the undo history must not hold them. */
    public void forgetDerived() {
        untouched = null;
        edited = null;
        if (layers().size() != 1) {
            printed = null;
        }
        if (hand != null) {
            hand.forgetDerived();
        }
    }

    /** Returns the regions with manual edits; edits that equal the print are dropped. */
    public Regions edited(ManualEdits edits) {
        boolean asPrinted = edits.muted().isEmpty() && edits.whole().equals(printed());
        return asPrinted ? asPrinted() : new Regions(all, edits).knowing(printed());
    }

    /** The same as it was printed, without anything that hands have done. */
    public Regions asPrinted() {
        return hand == null ? this : new Regions(all).knowing(printed());
    }

    /** Returns the regions that these were remapped from, if a remap undoes that and nothing was changed since. */
    public Optional<Regions> unmapped(TempoRemap next) {
        return remap != null && next.undoes(remap) ? Optional.of(unmapped) : Optional.empty();
    }

    /** Returns the same regions under music that got another tempo map. */
    public Regions remapped(TempoRemap next) {
        Regions remapped = retimed(next::tick);
        remapped.unmapped = this;
        remapped.remap = next;
        return remapped;
    }

    /**
     * Returns the regions after a change of the ticks of the music.
     *
     * @param tick the new tick of a tick; ascending
     */
    Regions retimed(LongUnaryOperator tick) {
        Map<MidiTrack, MidiTrack> prints = new IdentityHashMap<>();
        List<Region> next = new ArrayList<>();
        for (Region region : all) {
            MidiTrack print = prints.computeIfAbsent(region.print(), before -> Clips.retimed(before, tick));
            long from = tick.applyAsLong(region.from());
            next.add(new Region(
                    region.take(),
                    from,
                    region.isGone() ? from : Math.max(from + 1, tick.applyAsLong(region.to())),
                    region.printed(),
                    region.edited(),
                    print));
        }
        Regions retimed = new Regions(next);
        return hand == null
                ? retimed
                : retimed.edited(hand.retimed(printed(), tick, retimed.numbersNow(this, prints::get)));
    }

    private Regions knowing(MidiTrack known) {
        printed = known;
        return this;
    }

    /** Returns true if a region was edited manually. */
    public boolean isEdited(Region region) {
        if (hand == null || region.edited()) {
            return region.edited();
        }
        Set<Region> known = edited;
        if (known == null) {
            known = new HashSet<>();
            for (Region other : all) {
                List<Clips.Stretch> stretch = stretches(List.of(other));
                if (!other.isGone() && !isSame(stretch)) {
                    known.add(other);
                }
            }
            edited = known;
        }
        return known.contains(region);
    }

    private boolean isSame(List<Clips.Stretch> stretch) {
        MidiTrack before = Clips.within(printed(), stretch);
        return Clips.plain(before).equals(Clips.plain(Clips.within(hand.sounding(), stretch)));
    }

    /** Returns true if the remainder of a take was edited manually. */
    public boolean isEdited(String take) {
        return of(take).stream().anyMatch(this::isEdited);
    }

    /** These regions with what hands did to others, except where something else was printed. */
    private Regions after(Regions before, List<Clips.Stretch> printedAnew) {
        if (before.hand == null) {
            return this;
        }
        Traced kept = Clips.within(Traced.of(before.hand.whole(), ManualEdits.OF_WHOLE), outside(printedAnew));
        Traced anew = Clips.within(Traced.of(printed(), ManualEdits.OF_PRINTED), printedAnew);
        return edited(before.hand.recombined(Clips.over(kept, anew), printed(), numbersNow(before)));
    }

    private int[] numbersNow(Regions before) {
        return numbersNow(before, UnaryOperator.identity());
    }

    /**
     * Returns for each note of the previous print its present number; notes of a deleted print have none.
     *
     * @param printNow returns the present print for a previous one
     */
    private int[] numbersNow(Regions before, UnaryOperator<MidiTrack> printNow) {
        List<MidiTrack> printsBefore = before.prints();
        List<MidiTrack> prints = prints();
        Map<MidiTrack, int[]> noteOfEvent = new IdentityHashMap<>();
        Traced now = tracedPrints();
        ClipIndex index = ClipIndex.of(now.clip());
        for (int note = 0; note < index.noteCount(); note++) {
            int on = index.on(note);
            noteOfEvent.computeIfAbsent(prints.get(now.original(on)), Regions::noNotes)[now.number(on)] = note;
        }
        Traced then = before.tracedPrints();
        ClipIndex indexBefore = ClipIndex.of(then.clip());
        int[] numbers = new int[indexBefore.noteCount()];
        for (int note = 0; note < numbers.length; note++) {
            int on = indexBefore.on(note);
            int[] notes = noteOfEvent.get(printNow.apply(printsBefore.get(then.original(on))));
            numbers[note] = notes == null ? ClipIndex.NONE : notes[then.number(on)];
        }
        return numbers;
    }

    private static int[] noNotes(MidiTrack print) {
        int[] notes = new int[print.size()];
        Arrays.fill(notes, ClipIndex.NONE);
        return notes;
    }

    private static List<Clips.Stretch> outside(List<Clips.Stretch> stretches) {
        List<Clips.Stretch> outside = new ArrayList<>();
        long at = 0;
        for (Clips.Stretch stretch : stretches) {
            if (stretch.from() > at) {
                outside.add(new Clips.Stretch(at, stretch.from()));
            }
            at = stretch.to();
        }
        if (at < Long.MAX_VALUE) {
            outside.add(new Clips.Stretch(at, Long.MAX_VALUE));
        }
        return outside;
    }

    /** Returns the ranges of regions in order; adjacent ones are joined. */
    private static List<Clips.Stretch> stretches(List<Region> regions) {
        List<Region> inOrder = new ArrayList<>(regions);
        inOrder.sort(Comparator.comparingLong(Region::from));
        List<Clips.Stretch> stretches = new ArrayList<>();
        for (Region region : inOrder) {
            int last = stretches.size() - 1;
            if (last >= 0 && stretches.get(last).to() >= region.from()) {
                Clips.Stretch before = stretches.remove(last);
                stretches.add(new Clips.Stretch(before.from(), Math.max(before.to(), region.to())));
            } else {
                stretches.add(new Clips.Stretch(region.from(), region.to()));
            }
        }
        return stretches;
    }

    /** Adds a region; its print mode decides about the previous content. */
    public Regions with(Region next) {
        List<Region> more = new ArrayList<>();
        long until = next.printed() == PrintMode.REPLACE_ALL ? Long.MAX_VALUE : next.to();
        for (Region region : all) {
            if (region.isGone()) {
                if (!region.isOf(next.take())) {
                    more.add(region);
                }
            } else if (next.printed() == PrintMode.OVERDUB) {
                more.add(region);
            } else {
                addOutside(region, next.from(), until, more);
            }
        }
        rememberGone(more);
        more.add(next);
        return next.printed() == PrintMode.OVERDUB
                ? new Regions(more)
                        .knowing(Clips.over(printed(), Clips.within(next.print(), stretches(List.of(next)))))
                        .withOver(this, next.print(), stretches(List.of(next)))
                : new Regions(more).after(this, List.of(new Clips.Stretch(next.from(), until)));
    }

    /** Returns these regions with the edits of others, over which stretches of a print came. */
    private Regions withOver(Regions before, MidiTrack print, List<Clips.Stretch> stretches) {
        if (before.hand == null) {
            return this;
        }
        Traced whole = Traced.of(before.hand.whole(), ManualEdits.OF_WHOLE);
        Traced over = Clips.within(asPrinted(print), stretches);
        return edited(before.hand.recombined(Clips.over(whole, over), printed(), numbersNow(before)));
    }

    /** Returns one of the prints, whose events are traced to those that are printed now. */
    private Traced asPrinted(MidiTrack print) {
        Traced now = tracedPrints();
        List<MidiTrack> prints = prints();
        int[] originals = new int[print.size()];
        int[] numbers = new int[print.size()];
        Arrays.fill(originals, Traced.NONE);
        for (int i = 0; i < now.clip().size(); i++) {
            if (now.original(i) != Traced.NONE && prints.get(now.original(i)) == print) {
                originals[now.number(i)] = ManualEdits.OF_PRINTED;
                numbers[now.number(i)] = i;
            }
        }
        return new Traced(print, originals, numbers);
    }

    private void rememberGone(List<Region> left) {
        for (Region region : all) {
            if (region.take() != null && left.stream().noneMatch(other -> other.isOf(region.take()))) {
                left.add(0, Region.gone(region.take(), region.from(), region.printed()));
            }
        }
    }

    private static void addOutside(Region region, long from, long to, List<Region> outside) {
        if (region.to() <= from || region.from() >= to) {
            outside.add(region);
            return;
        }
        if (region.from() < from) {
            outside.add(region.between(region.from(), from));
        }
        if (region.to() > to) {
            outside.add(region.between(to, region.to()));
        }
    }

    /** Puts a new print in the place of that of a take, in the same stretches; what hands did there is lost. */
    public Regions reprinted(String take, MidiTrack print) {
        if (of(take).stream()
                .allMatch(region -> !isEdited(region) && region.print().equals(print))) {
            return this;
        }
        // The same print again: its notes are the same ones.
        MidiTrack before = of(take).get(0).print();
        MidiTrack next = before.equals(print) ? before : print;
        List<Region> reprinted = all.stream()
                .map(region -> region.isOf(take) && !region.isGone() ? region.withPrint(next) : region)
                .toList();
        List<Clips.Stretch> anew = new ArrayList<>(stretches(of(take)));
        Clips.Stretch last = anew.remove(anew.size() - 1);
        // What hands have drawn behind the end of the last print belongs to it.
        anew.add(last.to() < printed().endTick() ? last : new Clips.Stretch(last.from(), Long.MAX_VALUE));
        return new Regions(reprinted).after(this, anew);
    }

    /**
     * Adds a region below those of later takes, in the ranges that these have not replaced.
     *
     * @param later the ids of later takes
     */
    public Regions below(Set<String> later, Region next) {
        List<Region> pieces = List.of(next);
        int place = all.size();
        for (int i = all.size() - 1; i >= 0; i--) {
            Region region = all.get(i);
            if (region.take() != null && later.contains(region.take()) && !region.isGone()) {
                place = i;
                if (region.printed() != PrintMode.OVERDUB) {
                    List<Region> left = new ArrayList<>();
                    pieces.forEach(piece -> addOutside(piece, region.from(), region.to(), left));
                    pieces = left;
                }
            }
        }
        List<Region> more = new ArrayList<>(all);
        more.addAll(place, pieces);
        return new Regions(more).withOver(this, next.print(), stretches(pieces));
    }

    /** Returns the sounding content of regions without any of some takes, or with manual edits. */
    public MidiTrack clipOfOthersThan(List<String> takes) {
        List<Region> others = all.stream()
                .filter(region -> region.take() == null || isEdited(region) || !takes.contains(region.take()))
                .toList();
        return hand == null
                ? new Regions(others).sounding()
                : others.isEmpty() ? Track.NOTHING : Clips.within(hand.sounding(), stretches(others));
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Regions that && Objects.equals(hand, that.hand) && all.equals(that.all);
    }

    @Override
    public int hashCode() {
        return all.hashCode();
    }

    @Override
    public String toString() {
        return all.stream()
                .map(region -> region.take() + " " + region.from() + "-" + region.to())
                .collect(Collectors.joining(", "));
    }
}
