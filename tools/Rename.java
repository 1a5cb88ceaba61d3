import com.sun.source.doctree.DocCommentTree;
import com.sun.source.doctree.ReferenceTree;
import com.sun.source.tree.ClassTree;
import com.sun.source.tree.CompilationUnitTree;
import com.sun.source.tree.IdentifierTree;
import com.sun.source.tree.MemberReferenceTree;
import com.sun.source.tree.MemberSelectTree;
import com.sun.source.tree.MethodTree;
import com.sun.source.tree.Tree;
import com.sun.source.tree.VariableTree;
import com.sun.source.util.DocTreePath;
import com.sun.source.util.DocTreePathScanner;
import com.sun.source.util.DocTrees;
import com.sun.source.util.JavacTask;
import com.sun.source.util.TreePath;
import com.sun.source.util.TreePathScanner;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.lang.model.element.Element;
import javax.lang.model.element.ElementKind;
import javax.lang.model.element.ExecutableElement;
import javax.lang.model.element.TypeElement;
import javax.lang.model.util.Elements;
import javax.tools.JavaCompiler;
import javax.tools.StandardJavaFileManager;
import javax.tools.ToolProvider;

/**
 * Renames types and members in all modules, by syntax trees: {@code java -cp CLASSPATH tools/Rename.java LIST}. A line of
 * the list is {@code package.Type NewName} or {@code package.Type#member newName}; nested types are {@code Outer.Inner},
 * and {@code *#FIELD NEW_FIELD} is a field of any type.
 * Files of top-level types move. Names in other files (documents, scripts) are for the caller.
 */
class Rename {
    private final Map<String, String> types = new LinkedHashMap<>();
    private final Map<String, String> members = new LinkedHashMap<>();
    private final Map<Path, TreeMap<Integer, String[]>> changes = new HashMap<>();
    private final Map<Path, Path> moves = new LinkedHashMap<>();
    private DocTrees trees;
    private Elements elements;

    public static void main(String[] args) throws IOException {
        new Rename().run(Path.of(args[0]));
    }

    private void run(Path list) throws IOException {
        for (String line : Files.readAllLines(list)) {
            if (!line.isBlank() && !line.startsWith("#")) {
                String[] words = line.trim().split("\\s+");
                (words[0].contains("#") ? members : types).put(words[0], words[1]);
            }
        }
        List<Path> sources = new ArrayList<>();
        try (Stream<Path> modules = Files.list(Path.of("."))) {
            for (Path module : modules.filter(it -> Files.isDirectory(it.resolve("src"))).toList()) {
                add(sources, module.resolve("src"));
                add(sources, module.resolve("target/generated-sources/annotations"));
            }
        }
        JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
        try (StandardJavaFileManager files = compiler.getStandardFileManager(null, null, null)) {
            JavacTask task = (JavacTask) compiler.getTask(
                    null,
                    files,
                    problem -> {},
                    List.of("-proc:none", "-cp", System.getProperty("java.class.path"), "-Xlint:none"),
                    null,
                    files.getJavaFileObjectsFromPaths(sources));
            trees = DocTrees.instance(task);
            elements = task.getElements();
            List<CompilationUnitTree> units = new ArrayList<>();
            task.parse().forEach(units::add);
            task.analyze();
            for (CompilationUnitTree unit : units) {
                Path path = Path.of(unit.getSourceFile().toUri());
                if (!path.toString().contains("generated-sources")) {
                    new Scan(unit, path).scan(unit, null);
                }
            }
        }
        apply();
    }

    private static void add(List<Path> sources, Path folder) throws IOException {
        if (Files.isDirectory(folder)) {
            try (Stream<Path> all = Files.walk(folder)) {
                all.filter(it -> it.toString().endsWith(".java")).forEach(sources::add);
            }
        }
    }

    private void apply() throws IOException {
        int count = 0;
        for (Map.Entry<Path, TreeMap<Integer, String[]>> file : changes.entrySet()) {
            StringBuilder text = new StringBuilder(Files.readString(file.getKey()));
            for (Map.Entry<Integer, String[]> change : file.getValue().descendingMap().entrySet()) {
                int at = change.getKey();
                String[] names = change.getValue();
                if (!text.substring(at, at + names[0].length()).equals(names[0])) {
                    System.err.println(file.getKey() + " at " + at + ": no " + names[0]);
                    continue;
                }
                text.replace(at, at + names[0].length(), names[1]);
                count++;
            }
            Files.writeString(file.getKey(), text);
        }
        for (Map.Entry<Path, Path> move : moves.entrySet()) {
            Files.move(move.getKey(), move.getValue());
        }
        System.out.println(count + " places in " + changes.size() + " files");
    }

    /** Returns the new name of an element, or null. The builder of a record follows the record. */
    private String newName(Element element) {
        if (element instanceof TypeElement type) {
            String name = type.getQualifiedName().toString();
            String next = types.get(name);
            if (next == null && name.endsWith("Builder")) {
                String record = types.get(name.substring(0, name.length() - "Builder".length()));
                next = record == null ? null : record + "Builder";
            }
            return next;
        }
        if (element instanceof ExecutableElement method && method.getKind() == ElementKind.METHOD) {
            return methodName(method);
        }
        if (element != null && element.getKind().isField()) {
            String direct = members.get(element.getEnclosingElement() + "#" + element.getSimpleName());
            return direct != null ? direct : members.get("*#" + element.getSimpleName());
        }
        return null;
    }

    private String methodName(ExecutableElement method) {
        TypeElement owner = (TypeElement) method.getEnclosingElement();
        String direct = members.get(owner.getQualifiedName() + "#" + method.getSimpleName());
        if (direct != null) {
            return direct;
        }
        for (Map.Entry<String, String> member : members.entrySet()) {
            int hash = member.getKey().indexOf('#');
            if (!member.getKey().substring(hash + 1).contentEquals(method.getSimpleName())) {
                continue;
            }
            TypeElement type = elements.getTypeElement(member.getKey().substring(0, hash));
            if (type == null) {
                continue;
            }
            for (Element other : type.getEnclosedElements()) {
                if (other instanceof ExecutableElement overridden && elements.overrides(method, overridden, owner)) {
                    return member.getValue();
                }
            }
        }
        return null;
    }

    private final class Scan extends TreePathScanner<Void, Void> {
        private final CompilationUnitTree unit;
        private final Path path;
        private final String text;

        Scan(CompilationUnitTree unit, Path path) throws IOException {
            this.unit = unit;
            this.path = path;
            text = unit.getSourceFile().getCharContent(true).toString();
        }

        private void change(long at, String from, String to) {
            changes.computeIfAbsent(path, it -> new TreeMap<>()).put((int) at, new String[] {from, to});
        }

        private long start(Tree tree) {
            return trees.getSourcePositions().getStartPosition(unit, tree);
        }

        private long end(Tree tree) {
            return trees.getSourcePositions().getEndPosition(unit, tree);
        }

        private long find(String pattern, long from) {
            Matcher matcher = Pattern.compile(pattern).matcher(text);
            return matcher.find((int) from) ? matcher.start(1) : -1;
        }

        private long afterModifiers(Tree modifiers, Tree tree) {
            long end = modifiers == null ? -1 : end(modifiers);
            return end < 0 ? start(tree) : end;
        }

        @Override
        public Void visitClass(ClassTree tree, Void none) {
            doc();
            String next = newName(trees.getElement(getCurrentPath()));
            if (next != null) {
                String old = tree.getSimpleName().toString();
                change(find("\\b(?:class|interface|enum|record)\\s+(" + old + ")\\b", afterModifiers(tree.getModifiers(), tree)), old, next);
                if (path.getFileName().toString().equals(old + ".java") && getCurrentPath().getParentPath().getLeaf() == unit) {
                    moves.put(path, path.resolveSibling(next + ".java"));
                }
            }
            return super.visitClass(tree, none);
        }

        @Override
        public Void visitMethod(MethodTree tree, Void none) {
            doc();
            Element element = trees.getElement(getCurrentPath());
            if (element == null || start(tree) < 0) {
                return super.visitMethod(tree, none);
            }
            boolean constructor = element.getKind() == ElementKind.CONSTRUCTOR;
            Element named = constructor ? element.getEnclosingElement() : element;
            String next = newName(named);
            if (next != null) {
                String old = named.getSimpleName().toString();
                long from = tree.getReturnType() == null ? afterModifiers(tree.getModifiers(), tree) : end(tree.getReturnType());
                long at = find("\\b(" + old + ")\\s*[({]", from);
                // The constructor that a compiler adds has no name in the text.
                if (at >= 0 && at < from + 200) {
                    change(at, old, next);
                }
            }
            return super.visitMethod(tree, none);
        }

        @Override
        public Void visitVariable(VariableTree tree, Void none) {
            doc();
            Element element = trees.getElement(getCurrentPath());
            String next = element == null ? null : newName(element);
            if (next != null && start(tree) >= 0) {
                String old = tree.getName().toString();
                long from = tree.getType() == null || end(tree.getType()) < 0 ? start(tree) : end(tree.getType());
                change(find("\\b(" + old + ")\\b", from), old, next);
            }
            return super.visitVariable(tree, none);
        }

        @Override
        public Void visitIdentifier(IdentifierTree tree, Void none) {
            String next = newName(trees.getElement(getCurrentPath()));
            if (next != null && start(tree) >= 0 && text.startsWith(tree.getName().toString(), (int) start(tree))) {
                change(start(tree), tree.getName().toString(), next);
            }
            return super.visitIdentifier(tree, none);
        }

        @Override
        public Void visitMemberSelect(MemberSelectTree tree, Void none) {
            String next = newName(trees.getElement(getCurrentPath()));
            String old = tree.getIdentifier().toString();
            if (next == null && getCurrentPath().getParentPath().getLeaf().getKind() == Tree.Kind.IMPORT) {
                next = staticImport(tree, old);
            }
            if (next != null && end(tree) >= 0) {
                change(end(tree) - old.length(), old, next);
            }
            return super.visitMemberSelect(tree, none);
        }

        private String staticImport(MemberSelectTree tree, String name) {
            Element owner = trees.getElement(new TreePath(getCurrentPath(), tree.getExpression()));
            if (owner instanceof TypeElement type) {
                for (Element member : type.getEnclosedElements()) {
                    if (member.getSimpleName().contentEquals(name) && newName(member) != null) {
                        return newName(member);
                    }
                }
            }
            return null;
        }

        @Override
        public Void visitMemberReference(MemberReferenceTree tree, Void none) {
            String old = tree.getName().toString();
            String next = old.equals("<init>") ? null : newName(trees.getElement(getCurrentPath()));
            if (next != null) {
                change(end(tree) - old.length(), old, next);
            }
            return super.visitMemberReference(tree, none);
        }

        private void doc() {
            DocCommentTree comment = trees.getDocCommentTree(getCurrentPath());
            if (comment == null) {
                return;
            }
            new DocTreePathScanner<Void, Void>() {
                @Override
                public Void visitReference(ReferenceTree tree, Void none) {
                    Element element = trees.getElement(new DocTreePath(getCurrentPath(), tree));
                    Element at = trees.getElement(getCurrentPath());
                    element = at == null ? element : at;
                    if (element == null) {
                        return null;
                    }
                    long start = trees.getSourcePositions().getStartPosition(unit, comment, tree);
                    String signature = tree.getSignature();
                    int hash = signature.indexOf('#');
                    if (hash >= 0 && newName(element) != null && !(element instanceof TypeElement)) {
                        change(start + hash + 1, element.getSimpleName().toString(), newName(element));
                    }
                    String type = hash < 0 ? signature : signature.substring(0, hash);
                    if (!type.isEmpty()) {
                        Element owner = element instanceof TypeElement ? element : element.getEnclosingElement();
                        reference(owner, start, type);
                    }
                    return null;
                }
            }.scan(new DocTreePath(getCurrentPath(), comment), null);
        }

        /** Renames the parts of a name like {@code Outer.Inner} in a comment. */
        private void reference(Element owner, long start, String type) {
            int end = type.indexOf('(') < 0 ? type.length() : type.indexOf('(');
            Element part = owner;
            while (part instanceof TypeElement && end > 0) {
                String simple = part.getSimpleName().toString();
                if (!type.substring(0, end).endsWith(simple)) {
                    return;
                }
                int from = end - simple.length();
                if (newName(part) != null) {
                    change(start + from, simple, newName(part));
                }
                end = from - 1;
                part = part.getEnclosingElement();
            }
        }
    }
}
