using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Daxlin.Core.Capture;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates.Json;
using Daxlin.Testing;

namespace Daxlin.Core.Tests;

/// <summary>A template document with anything wrong in it is read and can be captured by, or is refused with each fault's place; <c>bench/fuzz</c> tries many more.</summary>
public class MutatedTemplatesTests
{
    [Fact]
    public void Whatever_is_changed_is_read_or_refused_with_its_place()
    {
        var pages = Sheet();
        var (read, refused) = (0, 0);
        for (var seed = 0; seed < Effort.Times(1500); seed++)
        {
            var document = MutatedTemplates.Make(seed);
            var (template, faults) = TemplateReader.Check(document);
            Assert.All(faults, fault => Assert.True(fault.Message.TrimEnd().Length > 0 && fault.Line <= document.Split('\n').Length, $"Seed {seed}: {fault}"));
            Assert.Equal(template is null, faults.Any(fault => !fault.IsWarning));
            TemplateReader.MustOf(document);
            if (template is null)
            {
                refused++;
                continue;
            }
            read++;
            try
            {
                // Whatever it captures, it does so without a fault of ours.
                Assert.NotEmpty(InvoicePath.Take(pages, new TemplateSet([(template.Recognise.Must, () => template)]), new DocumentFacts("any.pdf", "November", new DateOnly(2026, 12, 1)), new ChosenTemplate(1, 1, template)));
            }
            catch (RegexMatchTimeoutException)
            {
                // The service says which pattern it was.
            }
        }
        Assert.True(read > Effort.Times(150) && refused > Effort.Times(600), $"{read} were read and {refused} refused");
    }

    private static ImmutableArray<Pages.Page> Sheet()
    {
        var setter = new Typesetter();
        setter.Left("Brinewood Chandlery Invoice no BC-10001 Date 03/11/2026", 40, 60);
        setter.Left("Description", 40, 120);
        setter.Right("Qty", 300, 120);
        setter.Right("Amount", 500, 120);
        for (var row = 0; row < 8; row++)
        {
            setter.Left($"Shackle {row}", 40, 140 + 14 * row);
            setter.Right("2", 300, 140 + 14 * row);
            setter.Right("1,204.50", 500, 140 + 14 * row);
        }
        setter.Left("Total EUR", 340, 280);
        setter.Right("9,636.00", 500, 280);
        return setter.Pages();
    }
}
