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
        var refusal = Assert.ThrowsAny<UnreadableException>(() => PdfReader.Read(bytes));
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

    [Theory]
    [InlineData("/Contents [5 0 R 99 0 R]")]
    [InlineData("/Contents 99 0 R")]
    public void A_page_whose_content_is_not_there_is_no_empty_page(string entries) =>
        Assert.Equal("damaged", Assert.Throws<UnreadableException>(() => PdfReader.Read(TinyPdf.OnePage("BT /F1 10 Tf 100 700 Td (Total) Tj ET", entries))).Code);

    private static readonly string Rows = TinyPdf.Text([.. Enumerable.Range(0, 40).Select(row => (100.0, 800.0 - (15 * row), $"Row {row} comes to {7919 * row % 1000}.{37 * row % 100:00}"))]);

    /// <summary>However much of a page's packed content is lost, and wherever a bit is turned: all rows are read, or the file is refused.</summary>
    [Fact]
    public void Half_a_page_is_never_read()
    {
        var whole = PdfReader.Read(TinyPdf.Packed(Rows, packed => packed))[0].Lines.Select(line => line.Text).ToList();
        Assert.Equal(40, whole.Count);
        var (read, refused) = (0, 0);
        void Try(Func<byte[], byte[]> change)
        {
            try
            {
                Assert.Equal(whole, PdfReader.Read(TinyPdf.Packed(Rows, change))[0].Lines.Select(line => line.Text));
                read++;
            }
            catch (UnreadableException refusal)
            {
                Assert.Equal("damaged", refusal.Code);
                refused++;
            }
        }
        for (var lost = 0; lost < 200; lost++)
            Try(packed => packed[..^lost]);
        // Nothing, one to four bytes of the sum; at times one more of what only fills the last byte.
        Assert.True(read is >= 5 and < 10, $"{read} were read whole");
        var before = read;
        Try(packed => [.. packed, .. new byte[100]]);
        Try(packed => [.. packed, .. "\r\n"u8]);
        Assert.Equal(before + 2, read);
        for (var bit = 0; bit < 200; bit++)
            Try(packed => [.. packed.Select((value, at) => at == (packed.Length - 5) * bit / 200 ? (byte)(value ^ (1 << (bit % 8))) : value)]);
        Assert.True(refused > 300, $"{refused} were refused");
    }
}
