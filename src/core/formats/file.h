// Files as a whole: read with a limit, written so that a crash leaves the old file or the new one, never a
// part.
#pragma once

#include <string>
#include <string_view>

namespace talvik::formats {

// Content or, where `error` is not empty, the sentence why not. Files over `limit` bytes are refused.
struct FileText {
    std::string text, error;
};
FileText readFile(const std::string& path, std::size_t limit = 64u << 20);
// The same of a table, as spreadsheets write it: in UTF-8 whatever it was in; see encoding.
FileText readTable(const std::string& path);

// Writes to a fresh file of unpredictable name beside `path`, flushes it to disk and renames it over `path`.
// Links are followed to what they lead to; permissions and, where that is allowed, owner stay; a file that is
// read-only is refused, a device is written through. What killed runs have left beside it goes. Empty on
// success, else a sentence; the old file is then untouched and nothing is left. Without `flush` it withstands
// the end of the process, not that of the machine.
std::string writeFile(const std::string& path, std::string_view bytes, bool flush = true);
// Why a file certainly cannot be written there, as far as can be told without writing; empty where nothing
// speaks against it.
std::string whyNotWritable(const std::string& path);

// A file in memory for libraries that write to a path.
class MemoryFile {
  public:
    MemoryFile();
    ~MemoryFile();
    MemoryFile(const MemoryFile&) = delete;
    MemoryFile& operator=(const MemoryFile&) = delete;
    bool good() const { return file_ >= 0; }
    std::string path() const;
    FileText content() const;

  private:
    int file_;
};

// Of several files that belong together the name of one: "deck-2.dxf"; as it is where there is one only.
std::string numbered(const std::string& path, std::size_t number, std::size_t of);

}  // namespace talvik::formats
