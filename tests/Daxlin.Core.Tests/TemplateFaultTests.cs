using Daxlin.Core.Templates.Json;

namespace Daxlin.Core.Tests;

/// <summary>What is wrong with a template, or likely not meant, is said with its place before anything is captured.</summary>
public class TemplateFaultTests
{
    private const string Sound = """
        {
          "name": "faults", "vendor": "V", "reads": { "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," },
          "recognise": { "must": ["V"] },
          "fields": { "invoiceNumber": { "where": { "beside": "No" } }, "invoiceDate": { "where": { "beside": "Date" } }, "total": { "where": { "beside": "Total" } } },
          "blocks": [
            { "name": "goods", "columns": { "description": { "heading": "Text" }, "amount": { "heading": "Sum" } }, "row": { "begins": { "filled": "amount" } } },
            { "name": "taxes", "columns": { "rate": {}, "amount": {} }, "row": { "matching": "^VAT (?<rate>\\d+) (?<amount>[\\d.]+)$" } }
          ]
        }
        """;

    [Fact]
    public void A_sound_template_is_in_order() => Assert.Equal((true, 0), (TemplateReader.Check(Sound).Template is not null, TemplateReader.Check(Sound).Faults.Length));

    [Theory]
    [InlineData("\"amount\": { \"heading\"", "\"Amount\": { \"heading\"", "blocks[0].columns.Amount", "“amount”")]
    [InlineData("\"description\":", "\"discription\":", "blocks[0].columns.discription", "“description”")]
    [InlineData("\"total\":", "\"totl\":", "fields.totl", "“total”")]
    [InlineData("\"total\":", "\"Total\":", "fields.Total", "“total”")]
    [InlineData("\"invoiceDate\":", "\"invoicedat\":", "fields.invoicedat", "“invoiceDate”")]
    [InlineData("\"name\": \"taxes\"", "\"name\": \"tax\"", "blocks[1].name", "“taxes”")]
    [InlineData("\"rate\": {}", "\"rate\": {}, \"taxRate\": { \"always\": \"1\" }", "blocks[1].columns.taxRate", "“rate”")]
    [InlineData("\"rate\": {}", "\"rate\": {}, \"taxAmount\": { \"always\": \"1\" }", "blocks[1].columns.taxAmount", "“amount”")]
    [InlineData("\"rate\": {}", "\"rate\": {}, \"note\": { \"always\": \"1\" }", "blocks[1].columns.note", "no sum checks “note”")]
    [InlineData("\"must\": [\"V\"]", "\"must\": []", "recognise.must", "would take any invoice")]
    [InlineData("\"where\": { \"beside\": \"No\" }", "\"where\": []", "fields.invoiceNumber.where", "At least one of the whereabouts")]
    [InlineData("^VAT (?<rate>", "^VAT ((?<rate>", "blocks[1].row.matching", "is not closed")]
    public void A_fault_names_its_place_and_what_is_meant(string from, string to, string place, string says)
    {
        Assert.Contains(from, Sound, StringComparison.Ordinal);
        var (template, faults) = TemplateReader.Check(Sound.Replace(from, to, StringComparison.Ordinal));
        Assert.Null(template);
        Assert.Contains(faults, fault => fault.Place == place && !fault.IsWarning && fault.Message.Contains(says, StringComparison.Ordinal));
        // No library's sentence reaches a person, and each of ours ends.
        Assert.All(faults, fault => Assert.EndsWith(".", fault.Message, StringComparison.Ordinal));
    }

    [Theory]
    [InlineData(", \"total\": { \"where\": { \"beside\": \"Total\" } }", "", "fields", "There is no field “total”")]
    [InlineData("\"beside\": \"No\" }", "\"beside\": \"No\" }, \"tidy\": [{ \"drop\": \"\\\\d+$\" }]", "fields.invoiceNumber.tidy[0].drop", "looks like a pattern")]
    [InlineData("\"beside\": \"No\" }", "\"beside\": \"No\" }, \"tidy\": [{ \"replace\": \"[A-Z]\", \"with\": \"\" }]", "fields.invoiceNumber.tidy[0].replace", "looks like a pattern")]
    [InlineData("\"beside\": \"No\" }", "\"beside\": \"No\" }, \"tidy\": [{ \"after\": \"^No\" }]", "fields.invoiceNumber.tidy[0].after", "looks like a pattern")]
    public void What_is_likely_not_meant_is_a_warning(string from, string to, string place, string says)
    {
        var (template, faults) = TemplateReader.Check(Sound.Replace(from, to, StringComparison.Ordinal));
        Assert.NotNull(template);
        var warning = Assert.Single(faults);
        Assert.Equal((place, true), (warning.Place, warning.IsWarning));
        Assert.Contains(says, warning.Message, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("weight")]
    [InlineData("total2")]
    [InlineData("deliveryNote")]
    [InlineData("terms")]
    public void A_name_of_ones_own_is_none(string name) =>
        Assert.Empty(TemplateReader.Check(Sound.Replace("\"total\":", $"\"{name}\": {{ \"where\": {{ \"beside\": \"X\" }} }}, \"total\":", StringComparison.Ordinal)).Faults);
}
