#!/usr/bin/env python3
"""What a compiler says of the usual mistakes in a game's code: one sentence that says what to do, in few lines.

    compile_errors_test.py INCLUDE_FOLDER COMPILER
"""
import pathlib
import subprocess
import sys
import tempfile

GATE = "struct Gate { int speed = 2; };\n"
DESCRIBED = "template <class V> void describe(V& v, Gate& gate) { v(\"speed\", gate.speed); }\n"
SCENE = "class Wall : public vole::Scene {\n  %s\n};\ntemplate <class V> void describe(V&, Wall&) {}\n"
CUES = SCENE % "void cues(vole::Cues& cues) override { %s }"

# The code, the sentence, and how many lines there may be.
mistakes = [
    (GATE + 'void f(vole::Game& game) { game.knows<Gate>("gate"); }', "this component is not described: write beside it", 15),
    ("class Wall : public vole::Scene {};\nvoid f(vole::Game& game) { game.scene<Wall>(\"wall\"); }",
     "this scene does not describe its state: write beside it", 15),
    (GATE + "void f(vole::Stage& stage, vole::Entity thing) { stage.get<Gate>(thing).speed = 1; }",
     "this struct is not described: write beside it", 24),
    (CUES % 'cues.when_meet("a", "b", [](vole::Stage&, int) {});', "a handler of when_meet and while_touching takes", 15),
    (CUES % 'cues.when_told("a", [](int) {});', "a handler of when_told takes", 15),
    (CUES % 'cues.when_event("a", "step", [](vole::Stage&) {});', "a handler of when_event takes", 15),
    (CUES % "cues.every(1, [](int) {});", "a handler of every takes", 15),
    (SCENE % "int seeds = 0; void cues(vole::Cues& cues) override { cues.when_changes(seeds, [](int) {}); }",
     "a handler of when_changes takes", 15),
    (GATE + DESCRIBED + SCENE % 'void cues(vole::Cues& cues) override { cues.when_changes("gate", &Gate::speed, [](vole::Stage&) {}); }',
     "a handler of when_changes of a field takes", 15),
    (GATE + 'void f(vole::Game& game) { game.value<Gate>("gate"); }', "this value is not described: write beside it", 15),
    (GATE + SCENE % 'void tick(vole::Stage& stage) override { stage.leave_for("end", Gate{}); }',
     "what is handed from scene to scene is not described", 15),
    (GATE + DESCRIBED + SCENE % "" + "void f(vole::Stage& stage) { stage.leave_for<Wall>(Gate{}); }",
     "this scene expects nothing: write in its class what it expects", 15),
    (GATE + DESCRIBED + SCENE % "" + "void f(vole::Stage& stage) { stage.open<Wall>(Gate{}); }",
     "this scene expects nothing: write in its class what it expects", 15),
    (GATE + DESCRIBED + SCENE % "" + "void f(vole::Cues& cues) { cues.when_closed<Wall>([](vole::Stage&, const Gate&) {}); }",
     "this scene hands nothing back: write in its class what it does", 15),
    (GATE + DESCRIBED + SCENE % "public: using Result = Gate;" +
     "struct Door {};\nvoid f(vole::Cues& cues) { cues.when_closed<Wall>([](vole::Stage&, const Door&) {}); }",
     "a handler of when_closed takes", 15),
    ("struct Gate { int* speed = nullptr; };\n" + DESCRIBED + 'void f(vole::Game& game) { game.knows<Gate>("gate"); }',
     "a field of this type can be neither read nor saved", 36),
]


def main():
    include, compiler = sys.argv[1:3]
    wrong = 0
    with tempfile.TemporaryDirectory() as folder:
        for code, sentence, most in mistakes:
            source = pathlib.Path(folder, "game.cpp")
            source.write_text('#include "vole/vole.hpp"\n' + code + "\n")
            ran = subprocess.run([compiler, "-std=c++20", "-fsyntax-only", f"-I{include}", source], text=True,
                                 stdout=subprocess.PIPE, stderr=subprocess.STDOUT)
            lines = ran.stdout.count("\n")
            if ran.returncode == 0 or sentence not in ran.stdout or lines > most or ran.stdout.count("error: ") != 1:
                wrong += 1
                print(f"{code}\nwants \"{sentence}\", once, in {most} lines at the most, and got {lines}:\n{ran.stdout}")
    print(f"{len(mistakes)} mistakes, {wrong} said badly")
    sys.exit(1 if wrong else 0)


if __name__ == "__main__":
    main()
