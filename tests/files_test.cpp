// Files are written whole or not at all, and nothing else is touched.
#include <sys/stat.h>
#include <unistd.h>

#include <atomic>
#include <csignal>
#include <filesystem>
#include <map>
#include <thread>

#include "support.hpp"
#include "vole/base/file_set.hpp"
#include "vole/base/program.hpp"
#include "vole/level/level.hpp"

namespace {

namespace fs = std::filesystem;

// Everything below the folder with its content; links by where they lead, folders by "/".
std::map<std::string, std::string> all_in(const TempFolder& folder) {
  std::map<std::string, std::string> all;
  for (const fs::directory_entry& entry : fs::recursive_directory_iterator(folder.path())) {
    const std::string name = entry.path().lexically_relative(folder.path()).string();
    if (entry.is_symlink())
      all[name] = "-> " + fs::read_symlink(entry.path()).string();
    else
      all[name] = entry.is_regular_file() ? vole::read_text(entry.path().string(), 1 << 24) : "/";
  }
  return all;
}

}  // namespace

TEST_CASE("files of a set are there together, and nothing is left of a set that is given up") {
  TempFolder folder;
  folder.write("kept.txt", "old");
  folder.write("a.txt.part", "somebody's own");
  const auto before = all_in(folder);
  {
    vole::FileSet files;
    files.add(folder.path("a.txt"), "new a");
    files.add(folder.path("kept.txt"), "new");
    files.add(folder.path("deep/er/b.txt"), "new b");
    CHECK_FALSE(vole::file_exists(folder.path("a.txt")));
    CHECK(vole::read_text(folder.path("kept.txt"), 100) == "old");
  }
  CHECK(all_in(folder) == before);
  vole::expect_writable(folder.path("not/there/yet.txt"));
  CHECK(all_in(folder) == before);
  vole::FileSet files;
  files.add(folder.path("a.txt"), "new a");
  files.add(folder.path("kept.txt"), "new");
  files.add(folder.path("deep/er/b.txt"), "new b");
  files.put_in_place();
  auto after = before;
  after["a.txt"] = "new a";
  after["kept.txt"] = "new";
  after["deep"] = after["deep/er"] = "/";
  after["deep/er/b.txt"] = "new b";
  CHECK(all_in(folder) == after);
}

TEST_CASE("many who write one file at once leave one of their contents, whole, at every moment") {
  TempFolder folder;
  const std::string path = folder.path("shared.bin");
  const auto content = [](int who) {
    return std::string(20'000 + static_cast<std::size_t>(who), static_cast<char>('a' + who));
  };
  vole::write_whole(path, content(0));
  std::atomic<bool> going = true;
  std::vector<std::thread> writers;
  for (int who = 0; who < 4; ++who)
    writers.emplace_back([&, who] {
      for (int i = 0; i < 60; ++i) vole::write_whole(path, content(who));
    });
  std::thread stop([&] {
    for (std::thread& writer : writers) writer.join();
    going = false;
  });
  int seen = 0;
  bool whole = true;
  while (going) {
    const std::string now = vole::read_text(path, 1 << 20);
    // The size was asked for before the file was opened: a longer file may have taken its place.
    whole = whole && now.size() >= 20'000 && now == std::string(now.size(), now[0]);
    ++seen;
  }
  stop.join();
  CHECK(whole);
  CHECK(seen > 0);
  CHECK(all_in(folder).size() == 1);
}

TEST_CASE("links are written through, devices and pipes stay, rights are kept") {
  TempFolder folder;
  folder.write("real/target.txt", "old");
  fs::create_symlink("real/target.txt", folder.path("link.txt"));
  fs::create_symlink("link.txt", folder.path("link to link.txt"));
  fs::create_symlink("real/new.txt", folder.path("link to nothing.txt"));
  fs::create_symlink("ring b", folder.path("ring a"));
  fs::create_symlink("ring a", folder.path("ring b"));
  fs::permissions(folder.path("real/target.txt"), fs::perms::owner_read | fs::perms::owner_write);
  vole::write_whole(folder.path("link to link.txt"), "through");
  vole::write_whole(folder.path("link to nothing.txt"), "made");
  const auto all = all_in(folder);
  CHECK(all.at("link.txt") == "-> real/target.txt");
  CHECK(all.at("link to link.txt") == "-> link.txt");
  CHECK(all.at("real/target.txt") == "through");
  CHECK(all.at("real/new.txt") == "made");
  CHECK((fs::status(folder.path("real/target.txt")).permissions() & fs::perms::all) ==
        (fs::perms::owner_read | fs::perms::owner_write));
  CHECK(error_of([&] { vole::write_whole(folder.path("ring a"), "x"); }, folder) ==
        "ring a: error: cannot be written: its links lead nowhere");
  CHECK(error_of([&] { vole::write_whole(folder.path("real"), "x"); }, folder) ==
        "real: error: cannot be written: there is a folder of this name");
  CHECK(error_of([&] { vole::write_whole(folder.path("link.txt/b.txt"), "x"); }, folder)
            .find("link.txt/b.txt: error: cannot be written: ") == 0);
  CHECK(error_of([] { vole::write_whole("", "x"); }, folder).find("an empty text is no name of a file") !=
        std::string::npos);
  CHECK_NOTHROW(vole::write_whole("/dev/null", "x"));
  CHECK(fs::is_character_file("/dev/null"));
  CHECK(error_of([] { vole::write_whole("/dev/full", "x"); }, folder) ==
        "/dev/full: error: cannot be written: No space left on device");
  CHECK(fs::is_character_file("/dev/full"));
  const std::string pipe = folder.path("pipe");
  REQUIRE(mkfifo(pipe.c_str(), 0600) == 0);
  std::string came;
  std::thread reader([&] {
    std::FILE* const in = std::fopen(pipe.c_str(), "rb");
    for (int c = std::fgetc(in); c != EOF; c = std::fgetc(in)) came += static_cast<char>(c);
    std::fclose(in);
  });
  vole::write_whole(pipe, "down the pipe");
  reader.join();
  CHECK(came == "down the pipe");
  CHECK(fs::is_fifo(pipe));
  if (geteuid() != 0) {
    fs::permissions(folder.path("real/target.txt"), fs::perms::owner_read);
    CHECK(error_of([&] { vole::write_whole(folder.path("real/target.txt"), "x"); }, folder) ==
          "real/target.txt: error: cannot be written: it is write-protected");
  }
}

TEST_CASE("an output that is an input is refused, by whatever name") {
  TempFolder folder;
  folder.write("a/in.txt", "1");
  fs::create_symlink("a/in.txt", folder.path("link.txt"));
  fs::create_hard_link(folder.path("a/in.txt"), folder.path("twin.txt"));
  const std::vector<std::string> inputs{folder.path("a/in.txt")};
  for (const char* name : {"a/in.txt", "a/../a/in.txt", "link.txt", "twin.txt"})
    CHECK(error_of([&] { vole::refuse_to_replace(folder.path(name), inputs, "is the source"); }, folder) ==
          std::string(name) + ": error: is the source; give the output another name");
  CHECK_NOTHROW(vole::refuse_to_replace(folder.path("other.txt"), inputs, "is the source"));
}

// Called by the test below, in a process of its own.
TEST_CASE("a process is ended by a signal while it writes", "[.ended]") {
  vole::clean_up_on_signals();
  vole::FileSet files;
  for (int i = 0; i < 20; ++i)
    files.add(variable("VOLE_OUT") + "/" + std::to_string(i) + ".txt", "half of it all");
  std::raise(std::stoi(variable("VOLE_SIGNAL")));
  files.put_in_place();
}

TEST_CASE("a signal leaves nothing of what was only begun") {
  for (const int signal : vole::end_signals()) {
    TempFolder folder;
    folder.write("3.txt", "old");
    const auto before = all_in(folder);
    // What started this test may have signals ignored, as nohup does.
    const Ran ran = run_command("env --default-signal VOLE_OUT=" + as_word(folder.path()) +
                                " VOLE_SIGNAL=" + std::to_string(signal) + " " + as_word(program_of_test()) +
                                " 'a process is ended by a signal while it writes'");
    CAPTURE(signal, ran.output);
    CHECK(ran.code != 0);
    CHECK(all_in(folder) == before);
  }
}

TEST_CASE("a place that a folder takes meanwhile is reported, and bytes are written as they are") {
  TempFolder folder;
  vole::FileSet files;
  files.add(folder.path("a.bin"), vole::Bytes{0, 255, 10, 13, 0});
  files.add(folder.path("b.txt"), "b");
  fs::create_directory(folder.path("b.txt"));
  CHECK(error_of([&] { files.put_in_place(); }, folder) == "b.txt: error: cannot be written: Is a directory");
  CHECK(vole::read_bytes(folder.path("a.bin"), 100) == vole::Bytes{0, 255, 10, 13, 0});
}

TEST_CASE("what lies in a folder is told from what does not, links followed") {
  TempFolder folder;
  folder.write("game/assets/icon.png", "");
  folder.write("game/..icon.png", "");
  folder.write("elsewhere/secret", "");
  fs::create_directory_symlink(folder.path("elsewhere"), folder.path("game/out"));
  fs::create_directory_symlink(folder.path("game/assets"), folder.path("game/within"));
  const auto wrong = [&](const std::string& name) {
    return error_of([&] { vole::expect_inside(folder.path("game"), name, {}); }, folder);
  };
  for (const char* inside : {"assets/icon.png", "within/icon.png", "..icon.png", "not/there.png", "./assets"})
    CHECK(wrong(inside).empty());
  for (const char* outside :
       {"", "..", "../game/assets/icon.png", "assets/../../elsewhere/secret", "/etc/passwd"}) {
    CAPTURE(outside);
    CHECK(wrong(outside).find("is not in the folder \"game\"; write its path below that folder") !=
          std::string::npos);
  }
  CHECK(wrong("out/secret") ==
        "error: \"out/secret\" is not in the folder \"game\"; it is a link that leads out of it");
}
