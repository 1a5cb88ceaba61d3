package dibble.desktop.notes;

import dibble.desktop.ui.Palette;
import dibble.midi.NoteNames;
import dibble.notes.Grid;
import dibble.presentation.TimeScale;
import dibble.presentation.notes.DraggedNotes;
import dibble.presentation.notes.Geometry;
import dibble.presentation.notes.KeyRows;
import dibble.presentation.notes.TrackNotes;
import dibble.recording.ClipIndex;
import dibble.time.TempoMap;
import java.util.Arrays;
import java.util.BitSet;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;

/** Draws rows, the grid and notes. What would cover the same pixels is drawn once. */
final class NotePainter {
    /** Grid lines nearer to each other than this are noise. */
    private static final double MIN_GRID = 7;

    private static final double MIN_NOTE = 3;
    private static final double ROUND = 5;
    private static final double EDGE = 2;

    /** As many edges as are drawn finely within a frame. */
    private static final int MAX_FINE = 600;

    /** Rounded corners are seen from this width on. */
    private static final double MIN_ROUND = 9;

    private final GraphicsContext g;
    private final Geometry at;
    private final Palette palette;
    private final double width;

    NotePainter(GraphicsContext g, Geometry at, Palette palette, double width) {
        this.g = g;
        this.at = at;
        this.palette = palette;
        this.width = width;
    }

    /** The rows of keys, black ones darker, and the lines of the grid. */
    void ground(Grid grid) {
        g.setFill(palette.get("sheet"));
        g.fillRect(0, 0, width, at.height());
        for (int row = at.firstRow(); row <= at.lastRow(); row++) {
            double top = at.top(row);
            if (NoteNames.isBlack(at.rows().keys()[row])) {
                g.setFill(palette.get("bed"));
                g.fillRect(0, top, width, at.rowHeight());
            }
            g.setFill(palette.get("rule"));
            g.fillRect(0, Math.round(top + at.rowHeight()) - 1, width, 0.5);
        }
        lines(grid, at.height());
    }

    /** The lines of grid, beats and bars. */
    void lines(Grid grid, double height) {
        TimeScale scale = at.scale();
        TempoMap tempo = scale.tempo();
        double pixelsPerTick = scale.width() / scale.ticks();
        if (grid.step() * pixelsPerTick >= MIN_GRID) {
            g.setFill(palette.get("rule").deriveColor(0, 1, 1, 0.55));
            for (long tick = grid.before(Math.max(0, scale.from())); tick <= scale.to(); tick = grid.after(tick)) {
                g.fillRect(Math.round(scale.xOfTick(tick)), 0, 1, height);
            }
        }
        if (tempo.meter(scale.from()).ticksPerBeat() * pixelsPerTick >= MIN_GRID) {
            g.setFill(palette.get("rule"));
            for (long tick = tempo.beatAt(Math.max(0, scale.from()));
                    tick <= scale.to();
                    tick = tempo.beatAt(tick + 1)) {
                g.fillRect(Math.round(scale.xOfTick(tick)), 0, 1, height);
            }
        }
        g.setFill(palette.get("strong-rule"));
        scale.eachBar(bar -> g.fillRect(Math.round(scale.xOfTick(tempo.barStart(bar))), 0, 1, height));
    }

    /** Notes of a track that is not looked at now. */
    void faint(ClipIndex index, long longest, Color colour) {
        g.setFill(colour.deriveColor(0, 1, 1, 0.22));
        paint(index, longest, null, (x, top, wide, high, note) -> g.fillRect(x, top + 2, wide, high - 4));
    }

    /**
     * Draws outlines of the previous or played notes.
     *
     * @param which null for all
     */
    void outlines(ClipIndex index, long longest, BitSet which, boolean dashed) {
        int[] seen = new int[1];
        paint(index, longest, which, (x, top, wide, high, note) -> seen[0]++);
        if (seen[0] > MAX_FINE) {
            g.setFill(palette.get("soft"));
            paint(index, longest, which, (x, top, wide, high, note) -> g.fillRect(x, top + high - 3, wide, 1));
            return;
        }
        g.setStroke(palette.get("soft"));
        g.setLineWidth(1);
        g.setLineDashes(dashed ? new double[] {3, 2} : null);
        paint(
                index,
                longest,
                which,
                (x, top, wide, high, note) ->
                        g.strokeRoundRect(x + 0.5, top + 1.5, Math.max(2, wide - 1), high - 3, ROUND, ROUND));
        g.setLineDashes((double[]) null);
    }

    /** Notes of a track that is looked at: muted ones hollow, selected ones with an edge and where a hand holds them. */
    void notes(VisibleTrack shown, DraggedNotes held) {
        TrackNotes sheet = shown.sheet();
        BitSet others = new BitSet();
        others.set(0, sheet.index().noteCount());
        others.andNot(shown.selected());
        others.andNot(sheet.muted());
        g.setFill(shown.colour());
        paint(sheet.index(), sheet.longest(), others, (x, top, wide, high, note) -> note(x, top, wide, high));
        BitSet muted = (BitSet) sheet.muted().clone();
        muted.andNot(shown.selected());
        g.setStroke(shown.colour());
        g.setLineWidth(1);
        paint(
                sheet.index(),
                sheet.longest(),
                muted,
                (x, top, wide, high, note) -> g.strokeRect(x + 0.5, top + 2.5, Math.max(2, wide - 1), high - 5));
        selected(shown, held);
    }

    private void note(double x, double top, double wide, double high) {
        if (wide < MIN_ROUND) {
            g.fillRect(x, top + 2, wide, high - 4);
        } else {
            g.fillRoundRect(x, top + 2, wide, high - 4, ROUND, ROUND);
        }
    }

    private void selected(VisibleTrack shown, DraggedNotes held) {
        ClipIndex index = shown.sheet().index();
        BitSet selected = shown.selected();
        // With very many selected notes, covered ones are not drawn: they form one block.
        double[] covered = new double[at.rows().count()];
        Arrays.fill(covered, -1);
        for (int note = selected.nextSetBit(0); note >= 0; note = selected.nextSetBit(note + 1)) {
            double x = at.scale().xOfTick(index.start(note) + held.ticks());
            if (x > width) {
                break;
            }
            double end = at.scale().xOfTick(index.end(note) + held.ticks() + held.longer());
            int key = index.key(note) + held.semitones();
            int row = key < 0 || key > 127 ? KeyRows.NONE : at.rows().rowOf()[key];
            if (end < 0 || row == KeyRows.NONE || end <= covered[row] + 0.5) {
                continue;
            }
            covered[row] = end;
            double wide = Math.max(MIN_NOTE, end - x - 1);
            double top = at.top(row);
            // An edge is a note in ink with a smaller one on it: to fill is much quicker than to stroke.
            g.setFill(palette.get("ink"));
            note(x, top - 1, wide, at.rowHeight() + 2);
            if (wide > 2 * EDGE) {
                g.setFill(shown.sheet().muted().get(note) ? palette.get("sheet") : shown.colour());
                note(x + EDGE, top + EDGE - 1, wide - 2 * EDGE, at.rowHeight() - 2 * EDGE + 2);
            }
        }
    }

    private interface Paint {
        void note(double x, double top, double wide, double high, int note);
    }

    private void paint(ClipIndex index, long longest, BitSet which, Paint paint) {
        TimeScale scale = at.scale();
        double[] covered = new double[at.rows().count()];
        Arrays.fill(covered, -1);
        int[] rowOf = at.rows().rowOf();
        for (int note = TrackNotes.firstFrom(index, scale.from() - longest); note < index.noteCount(); note++) {
            long start = index.start(note);
            if (start > scale.to()) {
                break;
            }
            int row = rowOf[index.key(note)];
            if (row == KeyRows.NONE || which != null && !which.get(note)) {
                continue;
            }
            double x = scale.xOfTick(start);
            double end = Math.max(x + MIN_NOTE, scale.xOfTick(index.end(note)) - 1);
            double top = at.top(row);
            boolean seen = end >= 0 && top > -at.rowHeight() && top < at.height() && end > covered[row] + 0.5;
            if (seen) {
                covered[row] = end;
                paint.note(x, top, end - x, at.rowHeight(), note);
            }
        }
    }
}
