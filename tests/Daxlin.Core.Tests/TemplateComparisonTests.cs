using Daxlin.Core.Templates.Json;

namespace Daxlin.Core.Tests;

public class TemplateComparisonTests
{
    [Theory]
    [InlineData("""{"a": 1, "b": {"c": "x"}}""", """{ "b": {"c": "x"}, "a": 1 }""", "")]
    [InlineData("""{"fields": {"total": {"where": {"beside": "Total"}}}}""", """{"fields": {"total": {"where": {"beside": "Sum"}}}}""", "fields.total.where.beside: \"Total\" → \"Sum\"")]
    [InlineData("""{"fields": {}}""", """{"fields": {"tax": {"where": []}}}""", "fields.tax:  → {\"where\":[]}")]
    [InlineData("""{"blocks": [{"name": "goods", "x": 1}, {"name": "taxes"}]}""", """{"blocks": [{"name": "taxes"}, {"name": "goods", "x": 2}]}""", "blocks.goods.x: 1 → 2")]
    [InlineData("""{"closes": ["Total", "Sum"]}""", """{"closes": ["Total"]}""", "closes: [\"Total\",\"Sum\"] → [\"Total\"]")]
    [InlineData("""{"closes": "Total"}""", """{"closes": ["Total"]}""", "closes: \"Total\" → [\"Total\"]")]
    public void Two_documents_differ_where_they_say_otherwise(string before, string after, string expected) =>
        Assert.Equal(expected, string.Join("; ", TemplateComparison.Of(before, after).Select(one => $"{one.Place}: {one.Before} → {one.After}")));
}
