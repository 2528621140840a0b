using System.Text;
using System.Text.RegularExpressions;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>A file whose parts do not stand where it says is read as if they did, and says so once.</summary>
public partial class MendedFileTests
{
    /// <summary>What mail and transfers do to files, and what they leave as it was.</summary>
    private static readonly (string Name, Func<string, string?> Do, string Says)[] Damages =
    [
        ("the end is lost", file => file[..file.LastIndexOf("startxref", StringComparison.Ordinal)], "its end is missing, which says where its parts stand"),
        ("the end names no place", file => file[..file.LastIndexOf("startxref", StringComparison.Ordinal)] + "startxref\n%%EOF\n", "its end does not say where its parts stand"),
        ("the end names a wrong place", file => file[..file.LastIndexOf("startxref", StringComparison.Ordinal)] + "startxref\n12\n%%EOF\n", "the list of its parts does not stand where its end says"),
        ("the end names a place behind it", file => file[..file.LastIndexOf("startxref", StringComparison.Ordinal)] + "startxref\n999999999\n%%EOF\n", "the list of its parts does not stand where its end says"),
        ("a line was put in behind the header", file => file.Insert(file.IndexOf('\n') + 1, "%sent on by a gateway\n"), "the list of its parts does not stand where its end says"),
        ("one part stands elsewhere", OnePartElsewhere, "1 of the "),
    ];

    private static string? OnePartElsewhere(string file)
    {
        var entry = Entry().Matches(file).LastOrDefault(one => one.Groups[1].Value.TrimStart('0').Length > 0);
        return entry is null ? null : file[..entry.Index] + "0000000003" + file[(entry.Index + 10)..];
    }

    [GeneratedRegex(@"(?<=[\r\n])(\d{10}) \d{5} n")]
    private static partial Regex Entry();

    [Theory]
    [MemberData(nameof(Families.Folders), MemberType = typeof(Families))]
    public void Each_familys_files_are_whole_and_read_alike_with_their_places_lost(string family)
    {
        var files = Directory.GetFiles(Repository.Path(family), "*.pdf").Order(StringComparer.Ordinal).ToList();
        Assert.All(files, file => Assert.Equal("", DocumentReader.Read(File.ReadAllBytes(file)).Mended));
        var whole = File.ReadAllBytes(files[0]);
        var words = Words(whole);
        var tried = 0;
        foreach (var (name, damage, says) in Damages)
        {
            if (damage(Encoding.Latin1.GetString(whole)) is not { } damaged)
                continue;
            var bytes = Encoding.Latin1.GetBytes(damaged);
            Assert.StartsWith(says, DocumentReader.Read(bytes).Mended, StringComparison.Ordinal);
            Assert.True(words == Words(bytes), $"{name}: other words are read of {files[0]}");
            tried++;
        }
        Assert.True(tried >= Damages.Length - 1);
    }

    [Fact]
    public void It_is_told_once_of_each_invoice_and_holds_none()
    {
        var folder = Path.Combine(Repository.Corpus, "minasoko-reportlab");
        var templates = Directory.GetFiles(folder, "*.template.json").Select(file => Core.Templates.Json.TemplateReader.Read(File.ReadAllText(file)));
        var whole = Encoding.Latin1.GetString(File.ReadAllBytes(Path.Combine(folder, "multi.pdf")));
        var document = DocumentReader.Read(Encoding.Latin1.GetBytes(whole[..whole.LastIndexOf("startxref", StringComparison.Ordinal)]));
        var taken = InvoicePath.Take(document.Pages, [.. templates], document.FactsWith(DocumentFacts.Unknown));
        Assert.Equal(3, taken.Length);
        Assert.All(taken, invoice =>
        {
            Assert.True(invoice.Checked!.IsClear);
            var told = Assert.Single(invoice.Checked.Findings);
            Assert.Equal(
                (Severity.Note, "The file is damaged: its end is missing, which says where its parts stand. It was read by looking through all of it; see whether all of its pages are there."),
                (told.Severity, told.Message));
        });
    }

    private static string Words(byte[] bytes) => string.Join('\n', PdfReader.Read(bytes).SelectMany(page => page.Words).Select(word => $"{word.Text} {word.Box}"));
}
