#include <fmt/format.h>

#include <algorithm>
#include <qpdf/Pl_String.hh>
#include <qpdf/QPDF.hh>
#include <qpdf/QPDFPageDocumentHelper.hh>
#include <qpdf/QPDFPageObjectHelper.hh>
#include <qpdf/QPDFWriter.hh>

#include "paper/parts.h"

namespace talvik::paper {
namespace {

std::shared_ptr<QPDF> opened(const QByteArray& bytes) {
    auto pdf = QPDF::create();
    pdf->setImmediateCopyFrom(true);  // what is copied does not need it any more
    pdf->processMemoryFile("written", bytes.constData(), std::size_t(bytes.size()));
    return pdf;
}

// Feet under all pages: every piece of them once in the document, placed on each page.
void placeFeet(QPDF& all, QPDF& drawn, const Feet& feet) {
    auto forms = all.makeIndirectObject(QPDFObjectHandle::newDictionary());
    auto pieces = QPDFPageDocumentHelper(drawn).getAllPages();
    for (std::size_t k = 0; k < pieces.size(); ++k)
        forms.replaceKey(k == 0 ? "/Foot" : fmt::format("/Digit{}", k - 1),
                         all.copyForeignObject(pieces[k].getFormXObjectForPage()));
    auto pages = QPDFPageDocumentHelper(all).getAllPages();
    for (std::size_t k = 0; k < pages.size(); ++k) {
        auto resources = pages[k].getAttribute("/Resources", true);
        auto own = resources.getKey("/XObject");
        if (own.isDictionary())
            for (const auto& [name, form] : forms.getDictAsMap()) own.replaceKey(name, form);
        else
            resources.replaceKey("/XObject", forms);
        std::string placed = "q /Foot Do Q";
        double x = feet.end;
        auto number = std::to_string(k + 1);
        std::reverse(number.begin(), number.end());
        for (char digit : number) {
            x -= feet.width[std::size_t(digit - '0')];
            placed += fmt::format(" q 1 0 0 1 {:.3f} 0 cm /Digit{} Do Q", x - feet.begin, digit);
        }
        pages[k].addPageContents(all.newStream(placed + "\n"), true);
    }
}

}  // namespace

std::string joinPdf(std::vector<QByteArray> parts, const std::string& title, const Feet* feet) {
    QPDF all;
    all.emptyPDF();
    QPDFPageDocumentHelper pages(all);
    std::size_t size = 0;
    for (auto& part : parts) {
        size += std::size_t(part.size());
        const auto read = opened(part);
        for (const auto& page : QPDFPageDocumentHelper(*read).getAllPages()) pages.addPage(page, false);
        part.clear();
    }
    if (feet) placeFeet(all, *opened(feet->pdf), *feet);
    auto info = QPDFObjectHandle::newDictionary();
    info.replaceKey("/Title", QPDFObjectHandle::newUnicodeString(title));
    info.replaceKey("/Creator", QPDFObjectHandle::newUnicodeString("Talvik"));
    all.getTrailer().replaceKey("/Info", all.makeIndirectObject(info));
    QPDFWriter writer(all);
    std::string bytes;
    bytes.reserve(size + size / 50);
    Pl_String end("joined", nullptr, bytes);
    writer.setOutputPipeline(&end);
    writer.setDeterministicID(true);
    writer.setMinimumPDFVersion("1.4");  // of what Qt writes
    writer.write();
    return bytes;
}

}  // namespace talvik::paper
