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

// Writes to a new file beside `path`, flushes it to disk and renames it over `path`. Empty on success, else a
// sentence; the old file is then untouched.
std::string writeFile(const std::string& path, std::string_view bytes);

// Of several files that belong together the name of one: "deck-2.dxf"; as it is where there is one only.
std::string numbered(const std::string& path, std::size_t number, std::size_t of);

}  // namespace talvik::formats
