using Daxlin.Core.Json;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Testing;

namespace Daxlin.Core.Tests;

public class TemplateReaderTests
{
    private const string Good = """
        {
          "name": "good", "vendor": "Good",
          "reads": { "currency": "EUR", "dates": "day-first", "decimal": ",", "grouping": "." },
          "recognise": { "must": ["Good"] },
          "fields": { "total": { "where": [{ "beside": "Total" }] } },
          "blocks": [{ "name": "b", "columns": { "amount": { "heading": "Amount" } }, "row": { "begins": { "filled": "amount" } } }]
        }
        """;

    [Fact]
    public void A_good_template_reads()
    {
        var template = TemplateReader.Read(Good);
        Assert.Equal(("good", "EUR", ','), (template.Name, template.Reads.Currency.Code, template.Reads.DecimalMark));
    }

    [Theory]
    [InlineData("\"beside\"", "\"besides\"", "fields.total.where[0].besides", 5)]
    [InlineData("\"good\"", "\"Good One\"", "name", 2)]
    [InlineData("\"EUR\"", "\"EURO\"", "reads.currency", 3)]
    [InlineData("\"day-first\"", "\"dd/mm\"", "reads.dates", 3)]
    [InlineData("\"grouping\": \".\"", "\"grouping\": \",\"", "reads.grouping", 3)]
    [InlineData("\"must\": [\"Good\"]", "\"may\": [\"Good\"]", "recognise", 4)]
    [InlineData("\"heading\": \"Amount\"", "\"type\": \"money\"", "blocks[0].columns.amount", 6)]
    [InlineData("\"filled\": \"amount\"", "\"filled\": \"quantity\"", "blocks[0].row.begins", 6)]
    [InlineData("{ \"beside\": \"Total\" }", "{ \"matching\": \"(\" }", "fields.total.where[0].matching", 5)]
    [InlineData("\"vendor\": \"Good\"", "\"vendor\": \"Good\", \"vendor\": \"Bad\"", "vendor", 2)]
    [InlineData("\"vendor\": \"Good\",", "\"vendor\": \"Good\"", "the document", 3)]
    public void A_fault_is_named_by_its_key_and_line(string text, string instead, string place, int line)
    {
        var document = Good.Replace(text, instead, StringComparison.Ordinal);
        Assert.NotEqual(Good, document);
        var faults = Assert.Throws<JsonFaultException>(() => TemplateReader.Read(document)).Faults;
        Assert.Contains(faults, fault => fault.Place == place && fault.Line == line && fault.Message.Length > 10);
    }

    [Fact]
    public void All_faults_are_named_at_once()
    {
        var document = Good.Replace("EUR", "EURO", StringComparison.Ordinal).Replace("beside", "besides", StringComparison.Ordinal);
        Assert.True(Assert.Throws<JsonFaultException>(() => TemplateReader.Read(document)).Faults.Length >= 2);
    }

    [Fact]
    public void Every_template_of_the_corpus_and_the_demo_reads()
    {
        var files = new[] { Repository.Corpus, Repository.Samples }
            .SelectMany(folder => Directory.GetFiles(folder, "*.template.json", SearchOption.AllDirectories)).ToList();
        Assert.True(files.Count >= 9);
        Assert.All(files, file => Assert.NotEmpty(TemplateReader.Read(File.ReadAllText(file)).Fields));
    }
}
