package dibble.gear;

import dibble.midi.ChannelSet;
import dibble.midi.EventKind;
import dibble.midi.Range;
import dibble.text.UserException;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Makes a source that differs from another in some values. */
public final class SourceBuilder {
    private String id;
    private String name;
    private SourceKind kind;
    private String port;
    private Range keys;
    private ChannelSet listen;
    private Optional<ChannelSet> sends;
    private Set<EventKind> accept;
    private int transpose;
    private boolean localControl;
    private String ownInstrument;
    private boolean echoes;
    private List<String> sysexTo;
    private List<SequencerLane> lanes;
    private Extras extras;

    SourceBuilder(Source from) {
        id = from.id();
        name = from.name();
        kind = from.kind();
        port = from.port();
        keys = from.keys();
        listen = from.listen();
        sends = from.sends();
        accept = from.accept();
        transpose = from.transpose();
        localControl = from.localControl();
        ownInstrument = from.ownInstrument();
        echoes = from.echoes();
        sysexTo = from.sysexTo();
        lanes = from.lanes();
        extras = from.extras();
    }

    public SourceBuilder id(String value) {
        id = value;
        return this;
    }

    public SourceBuilder name(String value) {
        name = value;
        return this;
    }

    public SourceBuilder kind(SourceKind value) {
        kind = value;
        return this;
    }

    public SourceBuilder port(String value) {
        port = value;
        return this;
    }

    public SourceBuilder keys(Range value) {
        keys = value;
        return this;
    }

    public SourceBuilder listen(ChannelSet value) {
        listen = value;
        return this;
    }

    public SourceBuilder sends(Optional<ChannelSet> value) {
        sends = value;
        return this;
    }

    public SourceBuilder accept(Set<EventKind> value) {
        accept = value;
        return this;
    }

    public SourceBuilder transpose(int value) {
        transpose = value;
        return this;
    }

    public SourceBuilder localControl(boolean value) {
        localControl = value;
        return this;
    }

    public SourceBuilder ownInstrument(String value) {
        ownInstrument = value;
        return this;
    }

    public SourceBuilder echoes(boolean value) {
        echoes = value;
        return this;
    }

    public SourceBuilder sysexTo(List<String> value) {
        sysexTo = value;
        return this;
    }

    public SourceBuilder lanes(List<SequencerLane> value) {
        lanes = value;
        return this;
    }

    /** @throws UserException where a value is out of its range */
    public Source build() {
        return new Source(
                id,
                name,
                kind,
                port,
                keys,
                listen,
                sends,
                accept,
                transpose,
                localControl,
                ownInstrument,
                echoes,
                sysexTo,
                lanes,
                extras);
    }
}
