using Daxlin.Core.Recognition;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;

namespace Daxlin.Core.Tests;

/// <summary>Among thousands of templates those are found that trying each one by itself finds, and no others.</summary>
public class TemplateSetTests
{
    private static readonly Template One = TemplateReader.Read("""
        {
          "name": "one", "vendor": "One", "reads": { "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," },
          "recognise": { "must": ["One"] }, "fields": { "total": { "where": { "beside": "Total" } } }
        }
        """);

    private static Template Of(int number, params string[][] must) => One with
    {
        Name = $"t{number}",
        Recognise = One.Recognise with { Must = [.. must.Select(spellings => new Cue([.. spellings]))] },
    };

    [Fact]
    public void Texts_of_few_letters_overlap_in_every_way_and_all_are_found()
    {
        var random = new Random(4711);
        for (var round = 0; round < 200; round++)
        {
            var texts = Enumerable.Range(0, 30).Select(_ => Letters(random.Next(1, 6))).ToList();
            var page = Letters(random.Next(0, 60));
            var found = new SortedSet<int>();
            new CueAutomaton(texts.Select((text, index) => (text, index))).Find(page, found);
            Assert.Equal(Enumerable.Range(0, 30).Where(index => page.Contains(texts[index], StringComparison.Ordinal)), found);
        }

        string Letters(int count) => string.Concat(Enumerable.Range(0, count).Select(_ => (char)('a' + random.Next(3))));
    }

    [Theory]
    [InlineData("Ropes & Sons\nTotal 1.00", "t1 t4 t5")]
    [InlineData("R O P E S  &  S O N S", "t1 t4 t5")]
    [InlineData("ROPES & SONS and TAR & CO", "t1 t2 t3 t4 t5")]
    [InlineData("Tar & Co", "t2 t3 t5")]
    [InlineData("nothing of it", "")]
    public void A_page_calls_up_those_that_may_recognise_it(string page, string names)
    {
        var set = new TemplateSet([Of(1, ["Ropes & Sons"]), Of(2, ["Tar & Co"]), Of(3, ["Co"], ["Tar & Co"]), Of(4, ["Sails"], ["Ropes & Sons"]), Of(5, ["Tar & Co", "Ropes & Sons"])]);
        var pages = Typewriter.Set(page);
        var candidates = set.CandidatesFor(pages).Select(template => template.Name).ToList();
        Assert.Equal(names, string.Join(' ', candidates));
        Assert.Equal(5, set.Count);
        // Whoever recognises the page is among them, asked alone or with all others.
        foreach (var template in set)
        {
            if (!Recogniser.Recognise(pages, [template]).IsEmpty)
                Assert.Contains(template.Name, candidates);
        }
    }

    [Fact]
    public void A_template_without_a_cue_that_must_be_there_is_always_asked() =>
        Assert.Equal(["t7"], new TemplateSet([Of(7), Of(8, ["Rope"])]).CandidatesFor(Typewriter.Set("Tar")).Select(template => template.Name));

    [Fact]
    public void The_best_of_several_templates_is_the_one_that_asks_for_most_and_a_tie_is_nobodys()
    {
        var pages = Typewriter.Set("Ropes & Sons\nTar & Co");
        var set = new TemplateSet([Of(1, ["Ropes"]), Of(2, ["Ropes & Sons"]), Of(3, ["Ropes"], ["Tar & Co"]), Of(4, ["Ropes", "Ropes & Sons & Daughters"])]);
        var matches = Recogniser.Recognise(pages, set);
        // The longest spelling counts, whichever of them is printed; blanks count as they are written.
        Assert.Equal(["t4 24", "t3 13", "t2 12", "t1 5"], matches.Select(match => $"{match.Template.Name} {match.Score}"));
        Assert.Equal("t4", Recogniser.Choice(matches)!.Name);
        Assert.Null(Recogniser.Choice(Recogniser.Recognise(pages, [Of(1, ["Ropes"]), Of(2, ["Tar &"])])));
        Assert.Null(Recogniser.Choice([]));
    }

    [Theory]
    // Of several the one of which the most is there.
    [InlineData("Ropes & Sons\nTar", "The template t1 would, but for “Sails of hemp”, which is not on it.")]
    [InlineData("Sails of hemp\nTar", "The template t1 would, but for “Ropes & Sons” or “R & S”, which is not on it.")]
    [InlineData("Tar", "The template t2 would, but for “Pitch”, which is not on it.")]
    // One whole word of another is none.
    [InlineData("Tarpaulin", null)]
    [InlineData("Oakum", null)]
    [InlineData("nothing of it", null)]
    public void Which_template_would_recognise_a_page_but_for_one_cue_is_told(string page, string? says)
    {
        var set = new TemplateSet([Of(1, ["Ropes & Sons", "R & S"], ["Sails of hemp"]), Of(2, ["Tar"], ["Pitch"]), Of(3, ["Oakum"], ["Caulk"], ["Mallet"])]);
        Assert.Equal(says, set.NearlyFor(Typewriter.Set(page))?.Says);
        Assert.Equal(says, Assert.Single(InvoiceSplitter.Split(Typewriter.Set(page), set)).Nearly?.Says);
    }
}
