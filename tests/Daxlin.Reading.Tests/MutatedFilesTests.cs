using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>Content streams, fonts and character maps with anything wrong in them are read or refused with a sentence; <c>bench/fuzz</c> tries many more.</summary>
public sealed class MutatedFilesTests
{
    [Fact]
    public void Whole_files_are_read() => Assert.All(MutatedFiles.Whole, file => Assert.Contains(PdfReader.Read(file)[0].Words, word => word.Text is "1,204.50" or "5"));

    [Fact]
    public void Whatever_is_changed_is_read_or_refused_with_a_sentence()
    {
        var (read, refused) = (0, 0);
        for (var seed = 0; seed < Effort.Times(4000); seed++)
        {
            try
            {
                var pages = PdfReader.Read(MutatedFiles.Make(seed));
                Assert.All(pages.SelectMany(page => page.Words), word => Assert.Equal(word.Text.Length, word.Stops.Length));
                Assert.All(
                    pages.SelectMany(page => page.Words.Select(word => word.Box).Concat(page.Unseen.Select(word => word.Box)).Concat(page.Strokes.Select(stroke => stroke.Box))),
                    box => Assert.True(double.IsFinite(box.Left + box.Top + box.Right + box.Bottom), $"Seed {seed}: {box}"));
                read++;
            }
            catch (UnreadableException error)
            {
                Assert.EndsWith(".", error.Message, StringComparison.Ordinal);
                // A fault of ours shows as damage that it is not.
                var fault = error.InnerException;
                Assert.False(fault is IndexOutOfRangeException or NullReferenceException or OverflowException or InvalidCastException && fault.StackTrace!.TrimStart().StartsWith("at Daxlin.", StringComparison.Ordinal), $"Seed {seed}: {fault}");
                refused++;
            }
        }
        Assert.True(read > Effort.Times(1000) && refused > Effort.Times(100), $"{read} were read and {refused} refused");
    }
}
