using System.Collections.Concurrent;
using Daxlin.Accuracy;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>What templates drafted from the first invoice of each family come to on all others, as a floor.</summary>
public class DraftFloorTests
{
    [Fact]
    public void Drafts_with_no_act_of_a_person_capture_most_families_and_call_nothing_wrong_clear()
    {
        var scores = new ConcurrentBag<DraftScore>();
        Parallel.ForEach(
            new[] { Repository.Corpus, Repository.Families, Repository.Samples }.SelectMany(Repository.FamiliesOf),
            family => scores.Add(DraftScore.Of(family, samples: 1)));
        Assert.All(scores, score => Assert.Equal(0, score.FalseClear));
        Assert.True(PartOf(scores.Sum(score => score.Fields.Exact), scores.Sum(score => score.Fields.All)) >= 0.99, "header");
        Assert.True(PartOf(scores.Sum(score => score.Columns.Exact), scores.Sum(score => score.Columns.All)) >= 0.95, "rows");
        Assert.True(scores.Count(score => score.IsWhole) >= 18, $"{scores.Count(score => score.IsWhole)} whole families");
    }

    private static double PartOf(int some, int all) => (double)some / all;
}
