namespace WarmConduit.Core.Flow;

/// <summary>
/// A symmetric positive definite matrix kept as the part of each row from its first entry to the diagonal, with the rows renumbered so that these are short
/// (reverse Cuthill-McKee), and solved by LDLᵀ. Small networks cost next to nothing, long ones grow with their width squared and not their length cubed.
/// </summary>
internal sealed class SkylineMatrix
{
    private readonly int _n;
    private readonly int[] _place, _first, _start;
    private readonly double[] _values;

    public SkylineMatrix(int n, IEnumerable<(int A, int B)> pattern)
    {
        _n = n;
        var near = new List<int>[n];
        for (int i = 0; i < n; i++) near[i] = [];
        foreach (var (a, b) in pattern)
        {
            if (a == b) continue;
            near[a].Add(b);
            near[b].Add(a);
        }
        _place = Order(near);
        _first = [.. Enumerable.Range(0, n)];
        for (int i = 0; i < n; i++)
            foreach (int j in near[i])
                _first[Math.Max(_place[i], _place[j])] = Math.Min(_first[Math.Max(_place[i], _place[j])], Math.Min(_place[i], _place[j]));
        _start = new int[n + 1];
        for (int i = 0; i < n; i++) _start[i + 1] = _start[i] + i - _first[i] + 1;
        _values = new double[_start[n]];
    }

    public void Clear() => Array.Clear(_values);

    public void Add(int i, int j, double value)
    {
        int a = _place[i], b = _place[j];
        if (a < b) (a, b) = (b, a);
        _values[_start[a] + b - _first[a]] += value;
    }

    /// <summary>Solves in place of <paramref name="right"/>, destroying the matrix; false when it is not positive definite.</summary>
    public bool Solve(double[] right)
    {
        var x = new double[_n];
        for (int i = 0; i < _n; i++) x[_place[i]] = right[i];
        for (int i = 0; i < _n; i++)
        {
            int si = _start[i] - _first[i];
            for (int j = _first[i]; j < i; j++)
            {
                int sj = _start[j] - _first[j];
                double sum = _values[si + j];
                for (int k = Math.Max(_first[i], _first[j]); k < j; k++) sum -= _values[si + k] * _values[sj + k];
                _values[si + j] = sum;
            }
            double d = _values[si + i];
            for (int j = _first[i]; j < i; j++)
            {
                double pivot = _values[_start[j + 1] - 1], l = _values[si + j] / pivot;
                d -= l * _values[si + j];
                _values[si + j] = l;
                x[i] -= l * x[j];
            }
            if (!(d > 0)) return false;
            _values[si + i] = d;
        }
        for (int i = 0; i < _n; i++) x[i] /= _values[_start[i + 1] - 1];
        for (int i = _n - 1; i >= 0; i--)
            for (int j = _first[i]; j < i; j++) x[j] -= _values[_start[i] - _first[i] + j] * x[i];
        for (int i = 0; i < _n; i++) right[i] = x[_place[i]];
        return true;
    }

    private static int[] Order(List<int>[] near)
    {
        int n = near.Length, next = 0;
        var place = new int[n];
        Array.Fill(place, -1);
        foreach (int root in Enumerable.Range(0, n).OrderBy(i => near[i].Count))
        {
            if (place[root] >= 0) continue;
            var queue = new Queue<int>([root]);
            place[root] = next++;
            while (queue.TryDequeue(out int i))
            {
                foreach (int j in near[i].Distinct().OrderBy(j => near[j].Count))
                {
                    if (place[j] >= 0) continue;
                    place[j] = next++;
                    queue.Enqueue(j);
                }
            }
        }
        for (int i = 0; i < n; i++) place[i] = n - 1 - place[i];
        return place;
    }
}
