# The server in a container: built from a checkout, its data in the volume /data, plain HTTP on 8000 for a front.
FROM docker.io/library/node:20-bookworm-slim AS web
WORKDIR /build/web
COPY web/package.json web/package-lock.json ./
RUN npm ci --no-audit --no-fund
COPY web ./
RUN npm run build

FROM docker.io/library/python:3.11-slim-bookworm
ENV PYTHONUNBUFFERED=1 PYTHONDONTWRITEBYTECODE=1 EVENPROBE_DATA=/data BEHIND_A_FRONT=1 OPENBLAS_NUM_THREADS=1
WORKDIR /opt/evenprobe
COPY requirements.lock pyproject.toml README.md ./
RUN pip install --no-cache-dir -r requirements.lock
COPY src src
COPY server server
COPY --from=web /build/web/dist web/dist
RUN pip install --no-cache-dir --no-deps . \
    && useradd --system --uid 10001 --no-create-home evenprobe \
    && install -d -m 700 -o evenprobe /data
USER evenprobe
VOLUME /data
EXPOSE 8000
HEALTHCHECK --interval=30s --timeout=5s CMD ["python", "-c", "import urllib.request; urllib.request.urlopen('http://127.0.0.1:8000/healthz')"]
CMD ["sh", "-c", "python server/manage.py migrate --noinput && exec gunicorn --chdir server --no-control-socket --workers 1 --threads 16 --bind 0.0.0.0:8000 project.wsgi"]
