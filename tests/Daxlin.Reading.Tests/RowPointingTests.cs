using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Drafting;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Core.Values;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>What a person says of the item rows by pointing, over all families and by single acts.</summary>
public class RowPointingTests
{
    private sealed record Family(string Folder, JsonObject Template, ImmutableArray<Sample> Samples)
    {
        public string Document => Template.ToJsonString();

        public Habits Reads { get; } = TemplateReader.Read(Template.ToJsonString()).Reads;

        public JsonObject Block => Template["blocks"]!.AsArray().OfType<JsonObject>().First(block => (string?)block["name"] != BlockRule.Taxes && block["columns"] is not null);
    }

    private static Family Read(string folder, int samples)
    {
        var file = Directory.GetFiles(folder, "*.template.json").Single();
        var pdfs = Directory.GetFiles(folder, "*.pdf").Order(StringComparer.Ordinal).Take(samples);
        return new Family(folder, JsonNode.Parse(File.ReadAllText(file))!.AsObject(), [.. pdfs.Select(pdf => new Sample(Path.GetFileName(pdf), PdfReader.Read(File.ReadAllBytes(pdf))))]);
    }

    private static Family Brinewood() => Read(Path.Combine(Repository.Samples, "brinewood-chandlery"), 3);

    private static CheckedInvoice Taken(string document, Sample sample) => InvoiceChecks.Check(InvoiceCapture.Capture(sample.Pages, TemplateReader.Read(document)));

    /// <summary>Where words stand on the first page that has them, as a person sees it.</summary>
    private static PlaceOnPage Place(Sample sample, string text)
    {
        foreach (var page in sample.Upright.Pages)
        {
            foreach (var line in page.Lines)
            {
                for (var first = 0; first < line.Words.Length; first++)
                {
                    for (var last = first; last < line.Words.Length; last++)
                    {
                        if (TextLine.TextOf(line.Words.AsSpan()[first..(last + 1)]) == text)
                            return new PlaceOnPage(page.Number, line.Words[first].Box.Union(line.Words[last].Box));
                    }
                }
            }
        }
        throw new InvalidOperationException($"{text} is not printed on {sample.FileName}");
    }

    [Fact]
    public void One_word_of_the_headings_gives_the_rows_of_most_families_as_well_as_a_person_wrote_them()
    {
        var (families, alike, other, unsafeOnes) = (0, 0, new List<string>(), new List<string>());
        Parallel.ForEach(new[] { Repository.Corpus, Repository.Families, Repository.Samples }.SelectMany(Repository.FamiliesOf), folder =>
        {
            var family = Read(folder, 2);
            var heading = family.Block["columns"]!.AsObject().Select(column => column.Value!["heading"]).OfType<JsonValue>().Select(value => (string)value!).FirstOrDefault(text => !text.Contains(' ', StringComparison.Ordinal) && Printed(family.Samples[0], text));
            if (heading is null)
                return;
            var written = family.Samples.Select(sample => Taken(family.Document, sample)).ToList();
            var name = (string?)family.Block["name"];
            var bare = (JsonObject)family.Template.DeepClone();
            var block = bare["blocks"]!.AsArray().OfType<JsonObject>().First(one => (string?)one["name"] == name);
            block.Clear();
            (block["name"], block["columns"], block["row"]) = (name, new JsonObject { ["amount"] = new JsonObject { ["heading"] = "nobody prints this" } }, new JsonObject { ["begins"] = new JsonObject { ["filled"] = "amount" } });
            var way = RowPointing.Ways(family.Samples[0], Place(family.Samples[0], heading), RowMeaning.Headings, null, bare.ToJsonString(), family.Reads, family.Samples[1..]).FirstOrDefault();
            var again = way is null ? [] : family.Samples.Select(sample => Taken(way.Template, sample)).ToList();
            lock (unsafeOnes)
            {
                families++;
                if (again.Count > 0 && again.Zip(written).All(pair => Amounts(pair.First).SequenceEqual(Amounts(pair.Second))))
                    alike++;
                else
                    other.Add($"{Path.GetFileName(folder)} {(way is null ? "none" : "")}");
                // Whatever the rows are taken for, other figures than those that a person found are never clear.
                if (again.Zip(written).Any(pair => pair.First.IsClear && !Amounts(pair.First).SequenceEqual(Amounts(pair.Second))))
                    unsafeOnes.Add(folder);
            }
        });
        Assert.Empty(unsafeOnes);
        Assert.True(families >= 20, $"{families} families");
        Assert.True(alike >= 0.85 * families, $"{alike} of {families}: not {string.Join(", ", other)}");

        static bool Printed(Sample sample, string text) => sample.Upright.Lines.Any(line => line.Words.Any(word => word.Text == text));

        static IEnumerable<decimal?> Amounts(CheckedInvoice invoice) => invoice.Captured.Lines.Select(line => line.Find(TradeNames.Amount)?.Number);
    }

    [Fact]
    public void A_heading_that_is_named_takes_the_columns_place_and_keeps_what_the_column_said()
    {
        var family = Brinewood();
        var way = RowPointing.Ways(family.Samples[0], Place(family.Samples[0], "Einheit"), RowMeaning.Column, "packing", family.Document, family.Reads, family.Samples[1..])[0];
        var columns = JsonNode.Parse(way.Template)!["blocks"]![0]!["columns"]!.AsObject();
        var before = family.Block["columns"]!.AsObject();
        Assert.Equal(before.Select(pair => pair.Key == "unit" ? "packing" : pair.Key), columns.Select(pair => pair.Key));
        Assert.Equal("m", Taken(way.Template, family.Samples[0]).Captured.Lines[0].Find("packing")?.Value);
        Assert.Equal(3, way.Clear);

        // Taken away and named again, it stands where it stood.
        family.Block["columns"]!.AsObject().Remove("unit");
        way = RowPointing.Ways(family.Samples[0], Place(family.Samples[0], "Einheit"), RowMeaning.Column, "unit", family.Document, family.Reads, [])[0];
        Assert.Equal(before.Select(pair => pair.Key), JsonNode.Parse(way.Template)!["blocks"]![0]!["columns"]!.AsObject().Select(pair => pair.Key).Except(["unit"]));
        Assert.Equal("m", Taken(way.Template, family.Samples[0]).Captured.Lines[0].Find("unit")?.Value);
    }

    [Fact]
    public void A_value_without_a_heading_gets_a_column_at_its_place()
    {
        var family = Brinewood();
        family.Block["columns"]!.AsObject().Remove("unit");
        var invoice = Taken(Brinewood().Document, family.Samples[0]);
        var unit = invoice.Captured.Lines[0].Find("unit")!;
        var way = RowPointing.Ways(family.Samples[0], unit.Trace.Places[0], RowMeaning.Placed, "unit", family.Document, family.Reads, [])[0];
        Assert.Equal(invoice.Captured.Lines.Select(line => line.Find("unit")?.Value), Taken(way.Template, family.Samples[0]).Captured.Lines.Select(line => line.Find("unit")?.Value));
    }

    [Fact]
    public void The_words_below_the_rows_end_them_without_their_figures()
    {
        var family = Brinewood();
        var sum = (string)family.Block["closes"]!.AsArray()[0]!;
        family.Block.Remove("closes");
        var shown = family.Samples[0];
        var way = RowPointing.Ways(shown, Place(shown, sum), RowMeaning.Closes, null, family.Document, family.Reads, family.Samples[1..])[0];
        Assert.Equal([sum], JsonNode.Parse(way.Template)!["blocks"]![0]!["closes"]!.AsArray().Select(cue => (string?)cue));
        Assert.Equal(3, way.Clear);
    }

    [Fact]
    public void A_line_among_the_rows_is_left_out_by_its_words_on_every_invoice()
    {
        var page = """
            Slipway Paints            Invoice SP-1      Date 01.11.2026
            Text              Qty   Price      Sum
            Rope               40    2.00    80.00
            Our branch 7 is closed
            Shackle             2    8.00    16.00
            Total                            96.00
            """;
        const string template = """
            {
              "name": "slipway", "vendor": "Slipway Paints", "reads": { "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," },
              "recognise": { "must": ["Slipway Paints"] },
              "fields": { "invoiceNumber": { "where": { "beside": "Invoice" } }, "invoiceDate": { "where": { "beside": "Date" } }, "total": { "where": { "beside": "Total" } } },
              "blocks": [{
                "name": "goods", "closes": ["Total"],
                "columns": { "description": { "heading": "Text" }, "quantity": { "heading": "Qty" }, "unitPrice": { "heading": "Price" }, "amount": { "heading": "Sum" } },
                "row": { "begins": { "filled": "amount" } }
              }]
            }
            """;
        var shown = new Sample("a.pdf", PdfReader.Read(TinyPdf.OnePage(TinyPdf.Text(
            [.. page.Split('\n').SelectMany((line, index) => Cells(line).Select(cell => (40 + (6.0 * cell.At), 700 - (20.0 * index), cell.Text)))]))));
        Assert.False(Taken(template, shown).IsClear);
        var ways = RowPointing.Ways(shown, Place(shown, "Our branch"), RowMeaning.LeaveOut, null, template, TemplateReader.Read(template).Reads, []);
        Assert.Equal((1, 2), (ways[0].Clear, ways[0].Rows));
        Assert.Contains("lines that begin with “Our branch” are none of the rows", ways.Select(way => way.Says));
        // The same line as a heading is carried onto the row below it, and no other.
        var section = RowPointing.Ways(shown, Place(shown, "Our branch"), RowMeaning.Section, null, template, TemplateReader.Read(template).Reads, []);
        Assert.Equal([null, "Our branch 7 is closed"], Taken(section[0].Template, shown).Captured.Lines.Select(line => line.Find("section")?.Value));
        Assert.Empty(RowPointing.Ways(shown, new PlaceOnPage(1, new Box(0, 0, 5, 5)), RowMeaning.Closes, null, template, TemplateReader.Read(template).Reads, []));

        static IEnumerable<(int At, string Text)> Cells(string line) =>
            System.Text.RegularExpressions.Regex.Matches(line, @"\S+(?: \S+)*").Select(match => (match.Index, match.Value));
    }

    [Fact]
    public void Ways_of_rows_are_told_apart_by_what_they_give_and_the_best_is_first()
    {
        var family = Brinewood();
        family.Block["row"] = new JsonObject { ["begins"] = new JsonObject { ["filled"] = "description" } };
        var ways = RowPointing.Ways(family.Samples[0], null, RowMeaning.Rows, null, family.Document, family.Reads, family.Samples[1..]);
        Assert.Equal(3, ways[0].Clear);
        Assert.Equal(ways.Length, ways.Select(way => way.Template).Distinct().Count());
        Assert.True(ways.Length > 1);
    }
}
