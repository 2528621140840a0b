using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Testing;

namespace Daxlin.Core.Tests;

/// <summary>Templates read aloud.</summary>
public class TemplateSentencesTests
{
    private const string Template = """
        {
          "name": "slipway", "vendor": "Slipway Paints", "reads": { "currency": "EUR", "dates": "day-first", "decimal": ",", "grouping": ". " },
          "recognise": { "must": ["Slipway", ["Paints", "Colours"]], "mustNot": ["Statement"], "creditNote": ["Credit note"] },
          "fields": {
            "vendorName": { "where": { "always": "Slipway Paints" } },
            "invoiceNumber": { "where": { "beside": "Invoice" }, "shape": "S\\d+" },
            "invoiceDate": { "where": [{ "under": "Date" }, { "matching": "on (\\S+)", "occurrence": "first" }], "tidy": [{ "take": "\\S+" }] },
            "total": { "where": { "beside": "Amount payable", "occurrence": "last" } }
          },
          "blocks": [{
            "name": "goods", "closes": ["Total", "Sum"],
            "columns": {
              "itemCode": { "partOf": "article", "tidy": [{ "take": "\\S+" }] }, "article": { "heading": "Article", "kept": false },
              "description": { "heading": "Text", "fold": "down" }, "quantity": { "edges": [140, 190] }, "unit": { "unheaded": true }, "amount": { "heading": "Sum" }
            },
            "row": { "begins": { "filled": "amount" } }, "carry": { "section": { "beginsIn": "description" } }, "leaveOut": ["^Carried"], "required": true
          }]
        }
        """;

    [Theory]
    [InlineData("reads", "Amounts are in EUR, with “,” before the decimals and “.” or a blank between thousands; dates have the day first.")]
    [InlineData("recognise", "An invoice is this vendor's if “Slipway” and “Paints” or “Colours” all stand on it, and “Statement” does not. It is a credit note if “Credit note” stands on it.")]
    [InlineData("fields.vendorName", "The vendor name is always “Slipway Paints”.")]
    [InlineData("fields.invoiceNumber", "The invoice number is the text beside “Invoice”. It has the form S\\d+. Without it the invoice is held.")]
    [InlineData("fields.invoiceDate", "The invoice date is the date under “Date”; if there is none, the date matching on (\\S+), the first place. Its text is tidied: take. Without it the invoice is held.")]
    [InlineData("fields.total", "The total is the money beside “Amount payable”, the last place. Without it the invoice is held.")]
    [InlineData("blocks.goods", "The rows “goods” begin below their headings and end at “Total” or “Sum”. A row begins where its amount stands. An invoice without any is held.")]
    [InlineData("blocks.goods.columns.itemCode", "The item code is a part of the article; its text is tidied: take.")]
    [InlineData("blocks.goods.columns.article", "The article stands under “Article”; it is read, and no part of the row.")]
    [InlineData("blocks.goods.columns.description", "The description stands under “Text”; its text wraps below the row.")]
    [InlineData("blocks.goods.columns.quantity", "The quantity stands from 140 to 190 points.")]
    [InlineData("blocks.goods.columns.unit", "The unit stands between its neighbours, without a heading.")]
    [InlineData("blocks.goods.carry.section", "A line that begins in the column description between the rows is the section of the rows below it.")]
    [InlineData("blocks.goods.leaveOut", "Lines of the form ^Carried are none of the rows.")]
    public void A_rule_is_read_as_a_sentence(string place, string expected) =>
        Assert.Equal(expected, TemplateSentences.Of(TemplateReader.Read(Template)).Single(one => one.Place == place).Says);

    [Fact]
    public void Every_field_and_column_of_every_template_has_its_sentence()
    {
        foreach (var file in new[] { Repository.Corpus, Repository.Families, Repository.Samples }.SelectMany(folder => Directory.GetFiles(folder, "*.template.json", SearchOption.AllDirectories)))
        {
            var template = TemplateReader.Read(File.ReadAllText(file));
            var said = TemplateSentences.Of(template).ToLookup(one => one.Place);
            Assert.All(template.Fields, field => Assert.Contains(TradeNames.Spoken(field.Name), said[$"fields.{field.Name}"].Single().Says, StringComparison.Ordinal));
            Assert.All(template.Blocks.SelectMany(block => block.Columns.Select(column => $"blocks.{block.Name}.columns.{column.Name}")), place => Assert.Single(said[place]));
            Assert.All(said.SelectMany(group => group), one => Assert.True(one.Says.EndsWith('.') && !one.Says.Contains("Daxlin.", StringComparison.Ordinal), one.Says));
        }
    }
}
