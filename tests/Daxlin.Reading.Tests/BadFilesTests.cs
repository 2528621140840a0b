using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>A file that cannot be read is refused with a sentence and a code, within its limits.</summary>
public class BadFilesTests
{
    private static readonly byte[] Good = File.ReadAllBytes(Path.Combine(Repository.Corpus, "tarnbeck-writer", "inv-1.pdf"));

    public static TheoryData<string, string, byte[]> Files => new()
    {
        { "empty", "not-a-pdf", [] },
        { "not a PDF", "not-a-pdf", "GIF89a and so on"u8.ToArray() },
        { "only a head", "damaged", "%PDF-1.7\n"u8.ToArray() },
        { "cut short", "damaged", Good[..(Good.Length / 3)] },
        { "encrypted", "encrypted", TinyPdf.Encrypted() },
        { "no text", "no-text", TinyPdf.OnePage("0 0 100 100 re f") },
        { "3,000 pages", "too-large", TinyPdf.Pages([.. Enumerable.Repeat("", 3000)]) },
        { "a font without end", "too-large", TinyPdf.FontInflatingWithoutEnd(megabytes: 2000) },
        { "a stream without end", "too-large", TinyPdf.InflatingWithoutEnd(megabytes: 300) },
    };

    [Theory]
    [MemberData(nameof(Files))]
    public void Is_refused_with_its_reason(string what, string code, byte[] bytes)
    {
        var refusal = Assert.Throws<UnreadableException>(() => PdfReader.Read(bytes));
        Assert.True(refusal.Code == code, $"{what}: {refusal.Code}, {refusal.Message}, {refusal.InnerException}");
        Assert.EndsWith(".", refusal.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void Damage_anywhere_is_read_or_refused_and_never_anything_else()
    {
        // Bytes struck out at regular places; whatever comes of it, it is pages or a refusal.
        var outcomes = new List<string>();
        for (var at = 0; at < Good.Length; at += Good.Length / 40)
        {
            var damaged = Good.ToArray();
            damaged.AsSpan(at, Math.Min(200, damaged.Length - at)).Fill((byte)'x');
            try
            {
                outcomes.Add($"{PdfReader.Read(damaged).Length} pages");
            }
            catch (UnreadableException refusal)
            {
                outcomes.Add(refusal.Code);
            }
        }
        Assert.True(outcomes.Count >= 40);
        Assert.All(outcomes, outcome => Assert.Matches("pages$|^damaged$|^no-text$|^not-a-pdf$|^encrypted$", outcome));
    }
}
