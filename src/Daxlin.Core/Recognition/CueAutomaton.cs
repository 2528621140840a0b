namespace Daxlin.Core.Recognition;

/// <summary>Finds any number of texts in one pass over another.</summary>
/// <remarks>
/// After Aho and Corasick, "Efficient string matching: an aid to bibliographic search" (1975). A state is the longest
/// beginning of some text that the letters read so far end in; where no letter leads on, the state falls back to the next
/// shorter one. With "ropes" and "open", "rope" falls back to "ope", so that "ropen" is not missed.
/// </remarks>
public sealed class CueAutomaton
{
    private readonly Dictionary<(int State, char Letter), int> steps = [];
    private readonly List<int> fallback = [0];
    private readonly List<List<int>?> ends = [null];

    /// <summary>The nearest shorter state at which a text ends; 0 for none.</summary>
    private readonly int[] shorter;

    /// <param name="texts">Each with whom it belongs to; several may belong to one.</param>
    public CueAutomaton(IEnumerable<(string Text, int Owner)> texts)
    {
        foreach (var (text, owner) in texts)
        {
            var state = 0;
            foreach (var letter in text)
            {
                if (!steps.TryGetValue((state, letter), out var next))
                {
                    steps.Add((state, letter), next = fallback.Count);
                    fallback.Add(0);
                    ends.Add(null);
                }
                state = next;
            }
            (ends[state] ??= []).Add(owner);
        }
        shorter = new int[fallback.Count];
        // States were numbered on the way down, so a state's parent is settled before it only in the order of their depth.
        var children = steps.GroupBy(step => step.Key.State).ToDictionary(group => group.Key, group => group.Select(step => (step.Key.Letter, step.Value)).ToList());
        var waiting = new Queue<int>([0]);
        while (waiting.TryDequeue(out var state))
        {
            foreach (var (letter, next) in children.GetValueOrDefault(state, []))
            {
                fallback[next] = state == 0 ? 0 : Step(fallback[state], letter);
                shorter[next] = ends[fallback[next]] is null ? shorter[fallback[next]] : fallback[next];
                waiting.Enqueue(next);
            }
        }
    }

    /// <summary>Adds the owners of all texts that stand in <paramref name="text"/>.</summary>
    public void Find(string text, ISet<int> owners)
    {
        var state = 0;
        foreach (var letter in text)
        {
            state = Step(state, letter);
            for (var at = state; at != 0; at = shorter[at])
            {
                if (ends[at] is { } here)
                    owners.UnionWith(here);
            }
        }
    }

    private int Step(int state, char letter)
    {
        for (; ; state = fallback[state])
        {
            if (steps.TryGetValue((state, letter), out var next))
                return next;
            if (state == 0)
                return 0;
        }
    }
}
